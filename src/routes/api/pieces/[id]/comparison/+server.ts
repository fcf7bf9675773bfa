import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import type { EditionInput } from '$core/edition/open-edition';
import { findEdition } from '$lib/server/repositories/editions';
import { findEditionInput } from '$lib/server/repositories/readings';
import { idSchema, stateSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** What differs between two states of a piece, `?a=reading-1&b=edition-2`: bar by bar, with the readings themselves for listening. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  const db = await database();
  const state = async (name: 'a' | 'b'): Promise<EditionInput> => {
    const [kind, number] = valid<string>(stateSchema, url.searchParams.get(name), 'What is compared').split('-');
    if (kind === 'edition') {
      const found = await findEdition(db, Number(number));
      if (found?.pieceId === id) return found.content;
    } else {
      const found = await findEditionInput(db, Number(number));
      if (found?.piece.id === id) return found.input;
    }
    error(404, 'One of the two is not here any more.');
  };
  const [a, b] = [await state('a'), await state('b')];
  const comparison = await runTask('compare', { a, b }, () => {}, request.signal);
  return json({ comparison, readings: [a.reading, b.reading] });
};
