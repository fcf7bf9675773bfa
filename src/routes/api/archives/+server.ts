import { downloadParts } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The archives of all pieces in one file, those in the bin too. */
export const GET: RequestHandler = ({ locals }) =>
  downloadParts(locals.studio.allArchives(), 'application/zip', 'Nuvelo, all pieces', '.zip');
