import { idOf } from '$lib/server/params';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, locals }) => {
  const id = idOf(params.id, 'The number of the writing');
  return { id, ...(await locals.studio.writing(id)).state };
};
