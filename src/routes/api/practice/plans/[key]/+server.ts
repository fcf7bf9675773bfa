import { json } from '@sveltejs/kit';
import type { PlanChange } from '$core/rehearsal/plan/change';
import type { PlanContent } from '$core/rehearsal/plan/plan';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { keyOf } from '$lib/server/params';
import { planChangeContent, planContent } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const WHAT = 'The key of the plan';

/** The plan with all that was practised. */
export const GET: RequestHandler = async ({ params, locals }) => json(await locals.studio.practice.state(keyOf(params.key, WHAT)));

/** Keeps a whole plan: a new one, or one that is taken back. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const key = keyOf(params.key, WHAT);
  const content = valid<PlanContent>(planContent, await limitedJson(request, MOST_ACT_BYTES), 'The plan');
  await locals.studio.practice.keepPlan(key, content);
  return new Response(null, { status: 204 });
};

/** Changes what is named; answers with the plan as it is then. */
export const PATCH: RequestHandler = async ({ params, request, locals }) => {
  const key = keyOf(params.key, WHAT);
  const change = valid<PlanChange>(planChangeContent, await limitedJson(request, MOST_ACT_BYTES), 'The change');
  return json(await locals.studio.practice.changePlan(key, change));
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  await locals.studio.practice.removePlan(keyOf(params.key, WHAT));
  return new Response(null, { status: 204 });
};
