import { json, redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { sequence } from '@sveltejs/kit/hooks';
import { personAsking, studioOf } from '$lib/server/access';
import { keepBackups } from '$lib/server/backup/nightly';
import { environment } from '$lib/server/config/environment';
import { database } from '$lib/server/db/client';
import { turnedAway } from '$lib/server/gate/gate';
import { prepareWorkers } from '$lib/server/jobs/run';
import { log } from '$lib/server/log';
import { forgetPages, pageOnce } from '$lib/server/page-cache';
import { refusalOf } from '$lib/server/refusals';

/** Before the first request: the database stands, or the server does not start. */
export const init: ServerInit = async () => {
  await database();
  prepareWorkers();
  if (environment().backups) keepBackups();
};

/** Addresses that one may ask for without having signed in. */
const OPEN = ['/login', '/health'];

/** One line a request: what was asked for and how long it took, nothing of what it was about. */
const told: Handle = async ({ event, resolve }) => {
  const start = performance.now();
  const response = await resolve(event);
  const ms = Math.round(performance.now() - start);
  log().info({ method: event.request.method, route: event.route.id ?? '-', status: response.status, ms });
  return response;
};

const gate: Handle = async ({ event, resolve }) => {
  const away = turnedAway(event.request, event.url.pathname, environment());
  if (away) return json({ message: away.why }, { status: away.status });
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('cross-origin-resource-policy', 'same-origin');
  return response;
};

/** Finds out who asks and gives them what is theirs. */
const person: Handle = async ({ event, resolve }) => {
  if (OPEN.includes(event.url.pathname)) return resolve(event);
  let asking: string | null;
  try {
    asking = await personAsking(event);
    if (asking !== null) event.locals.studio = await studioOf(asking);
  } catch (fault) {
    const refusal = refusalOf(fault);
    if (!refusal) throw fault;
    return json({ message: refusal.sentence }, { status: refusal.status });
  }
  if (!event.locals.studio) {
    if (event.url.pathname.startsWith('/api/') || event.isDataRequest)
      return json({ message: 'You are signed out. Sign in in another window; what you did here is kept meanwhile.' }, { status: 401 });
    redirect(303, `/login?then=${encodeURIComponent(event.url.pathname + event.url.search)}`);
  }
  event.locals.signedIn = environment().login;
  if (event.request.method !== 'GET') {
    const response = await resolve(event);
    forgetPages();
    return response;
  }
  if (event.isDataRequest || !event.url.pathname.startsWith('/pieces/')) return resolve(event);
  return pageOnce(`${asking} ${event.url.href}`, event.request, async () => resolve(event));
};

export const handle: Handle = sequence(told, gate, person);

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status >= 500) log().error({ err: error });
  return {
    message:
      status === 404
        ? 'There is nothing at this address.'
        : status >= 500
          ? 'Something went wrong here. What you entered is kept; please try again.'
          : message
  };
};
