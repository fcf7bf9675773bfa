import { valid } from '$lib/server/http';
import { hashSchema } from '$lib/server/schemas';
import { musicXml } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The MusicXML document of a source. It never changes, so the browser may keep it. */
export const GET: RequestHandler = async ({ params, locals }) =>
  musicXml(await locals.studio.document(valid<string>(hashSchema, params.hash, 'The source')), 'private, max-age=31536000, immutable');
