import { limitedBody, limitedJson, MOST_FILE_BYTES, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { fileNameSchema, renameSchema, sourceNameSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { SourceLine } from '$lib/shapes';
import type { RequestHandler } from './$types';

/** Adds a source: the body is the file, `?name=` its file name, `&called=` what the instructor calls it. The answer is a stream of SourceLines. */
export const POST: RequestHandler = async ({ params, url, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const fileName = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const name = valid<string>(sourceNameSchema, url.searchParams.get('called'), 'The name of the source');
  const bytes = await limitedBody(request, MOST_FILE_BYTES);
  return streamed<SourceLine>(request, 'Something went wrong here while the file was read; nothing was stored.', async (say, signal) => {
    await piece.addSource(name, fileName, bytes, (stage) => say({ stage }), signal);
    say({ added: true });
  });
};

/** Names the source that the pages follow. */
export const PATCH: RequestHandler = async ({ params, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  await piece.nameSource(valid<{ name: string }>(renameSchema, await limitedJson(request), 'The name').name);
  return new Response(null, { status: 204 });
};
