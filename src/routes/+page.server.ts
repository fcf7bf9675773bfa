import { database } from '$lib/server/db/client';
import { listPieces } from '$lib/server/repositories/pieces';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ depends }) => {
  depends('nuvelo:shelf');
  return { pieces: await listPieces(await database()) };
};
