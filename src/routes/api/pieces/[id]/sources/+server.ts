import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { limitedBody, limitedJson, valid } from '$lib/server/http';
import { runTask, TaskRefused } from '$lib/server/jobs/run';
import { findPiece } from '$lib/server/repositories/pieces';
import { addSource, nameSource } from '$lib/server/repositories/sources';
import { fileNameSchema, idSchema, renameSchema, sourceNameSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { RequestHandler } from './$types';

const MOST_BYTES = 64 * 1024 * 1024;

/** Adds a source: the body is the file, `?name=` its file name, `&called=` what the instructor calls it. Lines of JSON, the last one {"added": true}. */
export const POST: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const fileName = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const name = valid<string>(sourceNameSchema, url.searchParams.get('called'), 'The name of the source');
  const bytes = await limitedBody(request, MOST_BYTES);
  const db = await database();
  if (!(await findPiece(db, id))) error(404, 'This piece is not on the shelf.');
  return streamed('Something went wrong here while the file was read; nothing was stored.', async (say, signal) => {
    const intake = await runTask('intake', { bytes, fileName }, (stage) => say({ stage }), signal);
    if (signal.aborted) return;
    if (!(await addSource(db, id, name, fileName, bytes, intake))) throw new TaskRefused('The piece has this very file already.');
    say({ added: true });
  });
};

/** Names the source that the pages follow. */
export const PATCH: RequestHandler = async ({ params, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const { name } = valid<{ name: string }>(renameSchema, await limitedJson(request, 4096), 'The name');
  if (!(await nameSource(await database(), id, name))) error(404, 'This piece is not on the shelf.');
  return new Response(null, { status: 204 });
};
