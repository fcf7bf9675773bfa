import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ depends, locals }) => {
  depends('nuvelo:shelf');
  return { pieces: await locals.studio.pieces() };
};
