import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { studioOf } from '$lib/server/access';
import { prepareWorkers } from '$lib/server/jobs/run';

export const init: ServerInit = prepareWorkers;

export const handle: Handle = async ({ event, resolve }) => {
  event.locals.studio = await studioOf(event);
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status >= 500) console.error(error);
  return {
    message:
      status === 404
        ? 'There is nothing at this address.'
        : status >= 500
          ? 'Something went wrong here. What you entered is kept; please try again.'
          : message
  };
};
