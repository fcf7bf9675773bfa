import { redirect } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { closeSession, COOKIE } from '$lib/server/people/sessions';
import type { RequestHandler } from './$types';

/** Signs the window's person out. */
export const POST: RequestHandler = async ({ cookies }) => {
  const token = cookies.get(COOKIE);
  if (token) await closeSession(await database(), token);
  cookies.delete(COOKIE, { path: '/' });
  redirect(303, '/login');
};
