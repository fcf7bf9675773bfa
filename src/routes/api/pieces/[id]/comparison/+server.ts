import { json } from '@sveltejs/kit';
import { valid } from '$lib/server/http';
import { idOf } from '$lib/server/params';
import { stateSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** What differs between two states of a piece, `?a=reading-1&b=edition-2`: bar by bar, with the readings themselves for listening. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const piece = await locals.studio.piece(idOf(params.id, 'The number of the piece'));
  const state = (name: 'a' | 'b') => valid<string>(stateSchema, url.searchParams.get(name), 'What is compared');
  return json(await piece.comparison(state('a'), state('b'), request.signal));
};
