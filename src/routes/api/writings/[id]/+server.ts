import { json } from '@sveltejs/kit';
import type { Written } from '$core/writing/written';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { saveWritingSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const NUMBER = 'The number of the writing';

/** Saves what is written over a revision: `{"base": 4, "content": …}`; status 409 with what stands there where it has gone on elsewhere. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const id = idOf(params.id, NUMBER);
  const { base, content } = valid<{ base: number; content: Written }>(
    saveWritingSchema,
    await limitedJson(request, MOST_ACT_BYTES),
    'The score'
  );
  const result = await locals.studio.saveWriting(id, base, content);
  return json(result, { status: 'conflict' in result ? 409 : 200 });
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  await locals.studio.removeWriting(idOf(params.id, NUMBER));
  return new Response(null, { status: 204 });
};
