import { idOf } from '$lib/server/params';
import { musicXml } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The MusicXML document that a reading is about: its source, with the readings of other sources that were chosen. */
export const GET: RequestHandler = async ({ params, request, locals }) => {
  const reading = await locals.studio.reading(idOf(params.id, 'The number of the reading'));
  return musicXml(await reading.document(request.signal), 'no-store');
};
