import type { Player } from '$core/players/player';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { keyOf } from '$lib/server/params';
import { playerContent } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const WHAT = 'The key of the player';

/** Keeps what is said of a player, who is new where the key is. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const key = keyOf(params.key, WHAT);
  const content = valid<Omit<Player, 'key'>>(playerContent, await limitedJson(request, MOST_ACT_BYTES), 'The player');
  await locals.studio.keepPlayer(key, content);
  return new Response(null, { status: 204 });
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  await locals.studio.removePlayer(keyOf(params.key, WHAT));
  return new Response(null, { status: 204 });
};
