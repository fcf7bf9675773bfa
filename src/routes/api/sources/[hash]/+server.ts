import { valid } from '$lib/server/http';
import { lasting } from '$lib/server/packed';
import { hashSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The MusicXML document of a source. */
export const GET: RequestHandler = async ({ params, request, locals }) => {
  const hash = valid<string>(hashSchema, params.hash, 'The source');
  return lasting(request, `document ${hash}`, 'application/vnd.recordare.musicxml+xml; charset=utf-8', () => locals.studio.document(hash));
};
