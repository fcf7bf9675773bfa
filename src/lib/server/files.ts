import { LRUCache } from 'lru-cache';

/** Bytes of files of editions that are remembered, in all. Set by hand. */
const MOST_BYTES = 64 * 1024 * 1024;

const known = new LRUCache<string, Uint8Array>({ maxSize: MOST_BYTES, sizeCalculation: (file) => file.byteLength || 1 });

/** A file that was made before of the very same things (named by `key`), or is made now and remembered. */
export async function fileOnce(key: string, make: () => Promise<Uint8Array | string>): Promise<Uint8Array> {
  const before = known.get(key);
  if (before) return before;
  const made = await make();
  const file = typeof made === 'string' ? new TextEncoder().encode(made) : made;
  known.set(key, file);
  return file;
}
