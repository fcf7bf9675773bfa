import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { valid } from '$lib/server/http';
import { removePiece } from '$lib/server/repositories/pieces';
import { idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

export const DELETE: RequestHandler = async ({ params }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the piece');
  if (!(await removePiece(await database(), id))) error(404, 'This piece is not on the shelf.');
  return new Response(null, { status: 204 });
};
