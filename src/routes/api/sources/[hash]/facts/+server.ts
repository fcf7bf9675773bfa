import { ENGINE, UNBUILT } from '$core/analysis/engine';
import { valid } from '$lib/server/http';
import { lasting } from '$lib/server/packed';
import { hashSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

const JSON_TYPE = 'application/json; charset=utf-8';

/** What the engine found in a source; `?engine=` is in the address so that the browser asks again after an update. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const hash = valid<string>(hashSchema, params.hash, 'The source');
  // A window of before an update, or an engine without a name: nothing to keep.
  if (ENGINE === UNBUILT || url.searchParams.get('engine') !== ENGINE)
    return new Response(await locals.studio.facts(hash), { headers: { 'content-type': JSON_TYPE, 'cache-control': 'no-store' } });
  return lasting(request, `facts ${ENGINE} ${hash}`, JSON_TYPE, () => locals.studio.facts(hash));
};
