import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { FORMATS, type Format } from '$lib/server/formats';
import { fileName, valid } from '$lib/server/http';
import { findEdition } from '$lib/server/repositories/editions';
import { formatSchema, idSchema } from '$lib/server/schemas';
import { download, sendEdition } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** A frozen edition as a file: the PDF is the one that was frozen, the other formats are made of what was frozen. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the edition');
  const format = valid<Format>(formatSchema, url.searchParams.get('format') ?? 'pdf', 'The format');
  const found = await findEdition(await database(), id);
  if (!found) error(404, 'This edition is not here.');
  if (format === 'pdf') return download(found.pdf, FORMATS.pdf, `${fileName(found.content.names.title)}-edition-${found.number}.pdf`);
  return sendEdition(found.content, format, url.searchParams.has('follow'), request);
};
