import { json } from '@sveltejs/kit';
import { personAsking } from '$lib/server/access';
import { health } from '$lib/server/health';
import type { RequestHandler } from './$types';

/** How the server is. Who has not signed in learns only whether it is well. */
export const GET: RequestHandler = async (event) => {
  const { well, ...details } = await health();
  const known = well && (await personAsking(event)) !== null;
  return json(known ? { well, ...details } : { well }, { status: well ? 200 : 503, headers: { 'cache-control': 'no-store' } });
};
