import type { VisitContent } from '$core/rehearsal/plan/visit';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { keyOf } from '$lib/server/params';
import { visitContent } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Adds to the log of the plan under the name that the window gave it: sent twice it stands once. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const [plan, id] = [keyOf(params.key, 'The key of the plan'), keyOf(params.id, 'The name of the entry')];
  const content = valid<VisitContent>(visitContent, await limitedJson(request, MOST_ACT_BYTES), 'What was practised');
  await locals.studio.practice.addVisit(plan, id, content);
  return new Response(null, { status: 204 });
};
