import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('nuvelo:writings');
  return { writings: await locals.studio.writings() };
};
