import { formatOf, idOf } from '$lib/server/params';
import { sendEdition } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** A frozen edition as a file: the PDF is the one that was frozen, the other formats are made of what was frozen. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const edition = await locals.studio.edition(idOf(params.id, 'The number of the edition'));
  const name = `${edition.title}, edition ${edition.number}`;
  return sendEdition((...how) => edition.file(...how), name, formatOf(url, 'pdf'), url.searchParams.has('follow'), request);
};
