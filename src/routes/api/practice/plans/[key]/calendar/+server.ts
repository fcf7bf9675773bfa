import { calendarOf } from '$lib/server/calendar';
import { planDays } from '$core/rehearsal/plan/days';
import { keyOf } from '$lib/server/params';
import { todayOf } from '$lib/server/practice-params';
import { download } from '$lib/server/send-file';
import type { RequestHandler } from './$types';

/** The days of a plan for a calendar. */
export const GET: RequestHandler = async ({ params, url, locals }) => {
  const { plan, visits } = await locals.studio.practice.state(keyOf(params.key, 'The key of the plan'));
  const { days } = planDays(plan, visits, todayOf(url));
  return download(calendarOf(plan, days), 'text/calendar; charset=utf-8', plan.title, '.ics');
};
