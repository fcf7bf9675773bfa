import type { Format } from './formats.ts';
import { valid } from './http.ts';
import { formatSchema, idSchema, keySchema } from './schemas.ts';

/** A number in an address. @throws with status 400 and one sentence */
export const idOf = (value: string, what: string): number => valid<number>(idSchema, value, what);

/** The `?format=` of an address. */
export const formatOf = (url: URL, usual: Format): Format =>
  valid<Format>(formatSchema, url.searchParams.get('format') ?? usual, 'The format');

/** A name in an address. @throws with status 400 and one sentence */
export const keyOf = (key: string, what: string): string => valid<string>(keySchema, key, what);
