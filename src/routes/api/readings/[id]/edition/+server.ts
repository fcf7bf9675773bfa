import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import type { Format } from '$lib/server/formats';
import { valid } from '$lib/server/http';
import { findEditionInput } from '$lib/server/repositories/readings';
import { formatSchema, idSchema } from '$lib/server/schemas';
import { sendEdition } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The edition as a file: `?format=pdf`, `musicxml` and so on; `&follow` sends how far it is meanwhile. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const format = valid<Format>(formatSchema, url.searchParams.get('format') ?? 'musicxml', 'The format');
  const found = await findEditionInput(await database(), id);
  if (!found) error(404, 'This reading is not here any more.');
  return sendEdition(found.input, format, url.searchParams.has('follow'), request);
};
