import { json } from '@sveltejs/kit';
import { limitedBody, MOST_ARCHIVE_BYTES, MOST_FILE_BYTES, valid } from '$lib/server/http';
import { fileNameSchema, tunesSchema } from '$lib/server/schemas';
import { streamed } from '$lib/server/stream';
import type { ImportLine } from '$lib/shapes';
import type { RequestHandler } from './$types';

/** The shelf, the newest piece first. */
export const GET: RequestHandler = async ({ locals }) => json(await locals.studio.shelf());

/**
 * Import of a score or of an archive: the body is the file, its name stands in the query, with what was answered before (`tunes`,
 * `again`). The answer is a stream of ImportLines.
 */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  const name = valid<string>(fileNameSchema, url.searchParams.get('name'), 'The name of the file');
  const tunes = valid<number[] | undefined>(tunesSchema, url.searchParams.get('tunes')?.split(','), 'The choice of tunes');
  const answers = { ...(tunes ? { tunes } : {}), again: url.searchParams.has('again') };
  const bytes = await limitedBody(request, name.endsWith('.json') ? MOST_ARCHIVE_BYTES : MOST_FILE_BYTES);
  return streamed<ImportLine>(request, 'Something went wrong here while the file was read; nothing was stored.', async (say, signal) => {
    const taken = await locals.studio.take(name, bytes, answers, (stage) => say({ stage }), signal);
    if (taken) say(taken);
  });
};
