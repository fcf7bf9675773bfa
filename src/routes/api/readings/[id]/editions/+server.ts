import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { limitedJson, valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { addEdition } from '$lib/server/repositories/editions';
import { findEditionInput } from '$lib/server/repositories/readings';
import { freezeSchema, idSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { RequestHandler } from './$types';

/** Freezes the reading as the piece's next edition; lines of JSON say how far it is, the last one is {"edition": …}. */
export const POST: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const { note } = valid<{ note: string }>(freezeSchema, await limitedJson(request, 10_000), 'The note');
  const db = await database();
  const found = await findEditionInput(db, id);
  if (!found) error(404, 'This reading is not here any more.');
  const { piece, row, input } = found;
  return streamed('Something went wrong here while the edition was made; nothing was frozen.', async (say, signal) => {
    const pdf = await runTask('file', { input, format: 'pdf' }, (stage) => say({ stage }), signal);
    if (signal.aborted) return;
    const edition = await addEdition(db, piece.id, { readingName: row.name, note, content: input, pdf: pdf as Uint8Array });
    say({ edition });
  });
};
