import { limitedBody, MOST_FILE_BYTES } from '$lib/server/http';
import { keyOf } from '$lib/server/params';
import { musicXml } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

const WHAT = 'The key of the sheet';

/** The notes of a task. A sheet never changes, so the browser keeps it. */
export const GET: RequestHandler = async ({ params, locals }) =>
  musicXml(await locals.studio.practice.sheet(keyOf(params.key, WHAT)), 'private, max-age=31536000, immutable');

/** Keeps the notes of a task as a MusicXML document. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const key = keyOf(params.key, WHAT);
  await locals.studio.practice.keepSheet(key, new TextDecoder().decode(await limitedBody(request, MOST_FILE_BYTES)));
  return new Response(null, { status: 204 });
};
