import { ENGINE, UNBUILT } from '$core/analysis/engine';
import { READY_LINES, type ReadyLine } from '$core/edition/first-picture';
import { valid } from '$lib/server/http';
import { lasting } from '$lib/server/packed';
import { hashSchema } from '$lib/server/schemas';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const SVG_TYPE = 'image/svg+xml; charset=utf-8';

/** The first systems of a source, engraved; `?engine=` is in the address so that the browser asks again after an update. */
export const GET: RequestHandler = async ({ params, url, request, locals }) => {
  const hash = valid<string>(hashSchema, params.hash, 'The source');
  const line = url.searchParams.get('line') ?? 'wide';
  if (!Object.hasOwn(READY_LINES, line)) error(400, 'A line is wide or narrow.');
  const make = (): Promise<string> => locals.studio.picture(hash, line as ReadyLine);
  if (ENGINE === UNBUILT || url.searchParams.get('engine') !== ENGINE)
    return new Response(await make(), { headers: { 'content-type': SVG_TYPE, 'cache-control': 'no-store' } });
  return lasting(request, `picture ${ENGINE} ${hash} ${line}`, SVG_TYPE, make);
};
