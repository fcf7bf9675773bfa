import { fail, redirect } from '@sveltejs/kit';
import { environment } from '$lib/server/config/environment';
import { database } from '$lib/server/db/client';
import { OWNER } from '$lib/server/owner';
import { attempt, succeeded } from '$lib/server/people/attempts';
import { isOwnersPassphrase } from '$lib/server/people/owner';
import { COOKIE, openSession, SESSION_DAYS } from '$lib/server/people/sessions';
import type { Actions, PageServerLoad } from './$types';

/** Where one goes after signing in: a page of ours, never another site. */
const pageAfter = (url: URL): string => {
  const then = url.searchParams.get('then') ?? '/';
  return /^\/(?![/\\])/.test(then) && !then.startsWith('/login') ? then : '/';
};

export const load: PageServerLoad = ({ url }) => {
  if (!environment().login) redirect(303, pageAfter(url));
};

export const actions: Actions = {
  default: async ({ request, url, cookies, getClientAddress }) => {
    const address = getClientAddress();
    const seconds = await attempt(address);
    if (seconds) return fail(429, { why: `Too many attempts; try again in ${Math.ceil(seconds / 60)} minutes.` });
    const passphrase = String((await request.formData()).get('passphrase') ?? '').slice(0, 1000);
    const db = await database();
    if (!(await isOwnersPassphrase(db, passphrase))) return fail(400, { why: 'This is not the passphrase.' });
    await succeeded(address);
    cookies.set(COOKIE, await openSession(db, OWNER), {
      path: '/',
      httpOnly: true,
      sameSite: 'lax',
      secure: url.protocol === 'https:',
      maxAge: SESSION_DAYS * 86_400
    });
    redirect(303, pageAfter(url));
  }
};
