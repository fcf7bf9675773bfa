import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { limitedJson, valid } from '$lib/server/http';
import { runTask, TaskRefused } from '$lib/server/jobs/run';
import { addPiece, findDocument, findPiece } from '$lib/server/repositories/pieces';
import { excerptSchema, idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Makes a piece of its own of some bars (measure indices, both included); what is in force where they begin goes with them. */
export const POST: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const range = valid<{ from: number; to: number }>(excerptSchema, await limitedJson(request, 10_000), 'The range of bars');
  const db = await database();
  const piece = await findPiece(db, id);
  const document = piece && (await findDocument(db, piece.sourceHash));
  if (!document) error(404, 'This piece is not on the shelf.');
  try {
    const intake = await runTask('excerpt', { document, ...range });
    const bytes = new TextEncoder().encode(intake.document);
    return json({ piece: (await addPiece(db, `${piece.title}.musicxml`, bytes, intake)).id });
  } catch (refused) {
    if (refused instanceof TaskRefused) error(422, refused.message);
    throw refused;
  }
};
