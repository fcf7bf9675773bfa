import { json } from '@sveltejs/kit';
import type { Written } from '$core/writing/written';
import { limitedJson, MOST_ACT_BYTES, valid } from '$lib/server/http';
import { writtenContent } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Begins a score from paper with its head: `{"id": 3}`. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const content = valid<Written>(writtenContent, await limitedJson(request, MOST_ACT_BYTES), 'The score');
  return json({ id: await locals.studio.beginWriting(content) }, { status: 201 });
};
