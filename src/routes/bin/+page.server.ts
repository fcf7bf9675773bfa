import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ depends, locals }) => {
  depends('nuvelo:bin');
  return { pieces: await locals.studio.bin() };
};
