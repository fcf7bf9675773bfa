import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ depends, locals }) => {
  depends('nuvelo:players');
  return { players: await locals.studio.players() };
};
