import { formatOf, idOf } from '$lib/server/params';
import { sendEdition } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The edition as a file: `?format=pdf`, `musicxml` and so on; `&follow` sends how far it is meanwhile. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const format = formatOf(url, 'musicxml');
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  return sendEdition((...how) => reading.file(...how), reading.piece.title, format, url.searchParams.has('follow'), request);
};
