import { gzipSync } from 'node:zlib';
import { LRUCache } from 'lru-cache';

/** A page as it was put together a moment ago. */
interface Page {
  html: string;
  packed: Buffer;
  headers: [string, string][];
}

/**
 * How long a page that was put together serves others who open the same one, in milliseconds: a class opens a piece within
 * a second. A window that got it asks for what has come since, as after any page that was on its way. Set by hand.
 */
const GOOD_MS = 300;

const known = new LRUCache<string, Page>({ max: 50, ttl: GOOD_MS });

/** Whatever was changed here: nothing that was put together before is given out after it. */
export const forgetPages = (): void => known.clear();

const answer = ({ html, packed, headers }: Page, request: Request): Response => {
  const gzip = /\bgzip\b/.test(request.headers.get('accept-encoding') ?? '');
  const all = new Headers(headers);
  all.set('vary', 'accept-encoding');
  if (gzip) all.set('content-encoding', 'gzip');
  return new Response(gzip ? new Uint8Array(packed) : html, { headers: all });
};

/** The page under a key if it was put together just now; else what `make` gives, remembered where it is a whole page. */
export async function pageOnce(key: string, request: Request, make: () => Promise<Response>): Promise<Response> {
  const before = known.get(key);
  if (before) return answer(before, request);
  const response = await make();
  if (response.status !== 200 || !response.headers.get('content-type')?.startsWith('text/html')) return response;
  const html = await response.text();
  const headers = [...response.headers].filter(([name]) => !['content-length', 'etag'].includes(name));
  const page = { html, packed: gzipSync(html, { level: 4 }), headers };
  known.set(key, page);
  return answer(page, request);
}
