import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ depends, locals }) => {
  depends('nuvelo:shelf');
  return locals.studio.shelf();
};
