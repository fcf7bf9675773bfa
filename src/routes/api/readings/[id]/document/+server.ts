import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findEditionInput } from '$lib/server/repositories/readings';
import { idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The MusicXML document that a reading is about: its source, with the readings of other sources that were chosen. */
export const GET: RequestHandler = async ({ params, request }) => {
  const found = await findEditionInput(await database(), valid<number>(idSchema, params.id, 'The number of the reading'));
  if (!found) error(404, 'This reading is not here any more.');
  const document = await runTask('chosen', found.input, () => {}, request.signal);
  return new Response(document, {
    headers: { 'content-type': 'application/vnd.recordare.musicxml+xml; charset=utf-8', 'cache-control': 'no-store' }
  });
};
