import type { MockContent } from '$core/rehearsal/audition';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { keyOf } from '$lib/server/params';
import { mockContent } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Adds to the log of the plan under the name that the window gave it: sent twice it stands once. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const [plan, id] = [keyOf(params.key, 'The key of the plan'), keyOf(params.id, 'The name of the entry')];
  const content = valid<MockContent>(mockContent, await limitedJson(request, MOST_ACT_BYTES), 'What was practised');
  await locals.studio.practice.addMock(plan, id, content);
  return new Response(null, { status: 204 });
};
