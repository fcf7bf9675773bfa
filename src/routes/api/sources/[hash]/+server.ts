import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { findDocument } from '$lib/server/repositories/pieces';
import { hashSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The MusicXML document of a source. It never changes, so the browser may keep it. */
export const GET: RequestHandler = async ({ params }) => {
  const document = await findDocument(await database(), valid<string>(hashSchema, params.hash, 'The source'));
  if (document === undefined) error(404, 'This source is not here.');
  return new Response(document, {
    headers: {
      'content-type': 'application/vnd.recordare.musicxml+xml; charset=utf-8',
      'cache-control': 'private, max-age=31536000, immutable'
    }
  });
};
