import { keyOf } from '$lib/server/params';
import { bookPartsOf, todayOf } from '$lib/server/practice-params';
import { download } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The plan on paper: its days, checklists, and the notes of its tasks with their reasons. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const key = keyOf(params.key, 'The key of the plan');
  const { title } = await locals.studio.practice.plan(key);
  const book = await locals.studio.practice.book(key, bookPartsOf(url), todayOf(url), () => {}, request.signal);
  return download(book, 'application/pdf', title, '.pdf');
};
