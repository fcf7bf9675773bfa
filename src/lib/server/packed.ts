import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { LRUCache } from 'lru-cache';

const pack = promisify(gzip);

/** Bytes of packed texts that are remembered, in all. Set by hand. */
const MOST_BYTES = 48 * 1024 * 1024;

const known = new LRUCache<string, Buffer>({ maxSize: MOST_BYTES, sizeCalculation: (text) => text.byteLength });
const underWay = new Map<string, Promise<Buffer>>();

/** Packs a text once for all who ask for it. */
async function packed(key: string, make: () => Promise<string>): Promise<Buffer> {
  const before = known.get(key);
  if (before) return before;
  let made = underWay.get(key);
  if (!made) {
    made = make()
      .then((text) => pack(text))
      .finally(() => underWay.delete(key));
    underWay.set(key, made);
  }
  const text = await made;
  known.set(key, text);
  return text;
}

/**
 * A text that never changes, which the browser may keep; sent as it was packed before.
 * @param key what it is, by a name that is given to nothing else
 */
export async function lasting(request: Request, key: string, type: string, make: () => Promise<string>): Promise<Response> {
  const headers = { 'content-type': type, 'cache-control': 'private, max-age=31536000, immutable', vary: 'accept-encoding' };
  if (!/\bgzip\b/.test(request.headers.get('accept-encoding') ?? '')) return new Response(await make(), { headers });
  return new Response(new Uint8Array(await packed(key, make)), { headers: { ...headers, 'content-encoding': 'gzip' } });
}
