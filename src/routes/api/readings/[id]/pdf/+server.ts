import { error } from '@sveltejs/kit';
import type { PageSettings } from '$core/edition/paper';
import { database } from '$lib/server/db/client';
import { fileName, valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findWhole } from '$lib/server/repositories/readings';
import { idSchema, pagesSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** The edition as a PDF, made in a worker: `?paper=A4&landscape=false&staff=usual&variant=study`. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const settings = valid<PageSettings>(pagesSchema, Object.fromEntries(url.searchParams), 'The setting of the pages');
  const whole = await findWhole(await database(), id);
  if (!whole) error(404, 'This reading is not here any more.');
  const { document, reading } = whole;
  const { title, composer, instrument } = whole.piece;
  const pdf = await runTask('pdf', { document, reading, title, composer, instrument, settings }, () => {}, request.signal);
  return new Response(pdf as BodyInit, {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${fileName(title)}.pdf"` }
  });
};
