import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => ({
  plans: await locals.studio.practice.plans(),
  players: await locals.studio.players()
});
