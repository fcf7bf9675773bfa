import { json } from '@sveltejs/kit';
import type { WrittenChange } from '$core/writing/change';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { saveWritingSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const NUMBER = 'The number of the writing';

/**
 * Saves a change over a revision: `{"base": 4, "save": "its name", "change": {"bars": […]}}`; status 409 with what stands there
 * where it has gone on elsewhere.
 */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const writing = await locals.studio.writing(idOf(params.id, NUMBER));
  const { base, save, change } = valid<{ base: number; save: string; change: WrittenChange }>(
    saveWritingSchema,
    await limitedJson(request, MOST_ACT_BYTES),
    'The score'
  );
  const result = await writing.save(base, save, change);
  return json(result, { status: 'conflict' in result ? 409 : 200 });
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  await (await locals.studio.writing(idOf(params.id, NUMBER))).remove();
  return new Response(null, { status: 204 });
};
