import { keyOf } from '$lib/server/params';
import type { LayoutServerLoad } from './$types';

/** A plan with what was practised, its player, and the shelf to take pieces from. */
export const load: LayoutServerLoad = async ({ params, locals }) => {
  const state = await locals.studio.practice.state(keyOf(params.key, 'The key of the plan'));
  const { pieces } = await locals.studio.shelf();
  return { state, players: await locals.studio.players(), shelf: pieces.map(({ id, title }) => ({ id, title })) };
};
