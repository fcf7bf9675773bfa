import { FORMATS } from '$lib/server/formats';
import { fileName } from '$lib/server/http';
import { formatOf, idOf } from '$lib/server/params';
import { download, sendEdition } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** A frozen edition as a file: the PDF is the one that was frozen, the other formats are made of what was frozen. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const id = idOf(params.id, 'The number of the edition');
  const format = formatOf(url, 'pdf');
  const { content, pdf, number } = await locals.studio.edition(id);
  if (format === 'pdf') return download(pdf, FORMATS.pdf, `${fileName(content.names.title)}-edition-${number}.pdf`);
  return sendEdition(content, format, url.searchParams.has('follow'), request);
};
