import { error } from '@sveltejs/kit';
import type Joi from 'joi';
import { COMMANDS } from '../../core/reading/commands/index.ts';
import type { PieceBounds } from '../../core/schema-kit.ts';
import { LIMITS } from '../../core/style/limits.ts';

/** The value, if it fits the schema (and the piece that it is about); else the request ends with status 400 and one sentence. */
export function valid<T>(schema: Joi.Schema, value: unknown, what: string, bounds: PieceBounds = {}): T {
  const result = schema.validate(value, { abortEarly: true, errors: { wrap: { label: false } }, context: bounds });
  if (result.error) error(400, `${what} is not as it should be: ${result.error.details[0].message}.`);
  return result.value as T;
}

/** So many times what is allowed is read before one does not wait for the end of it. */
const READ_AWAY = 4;

/** The body of a request up to a size; a larger one ends it with status 413. */
export async function limitedBody(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = () => error(413, `This is larger than the ${Math.round(most / 1024 / 1024)} MB that are allowed.`);
  if (Number(request.headers.get('content-length') ?? 0) > READ_AWAY * most) tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    // What is too large is still read for a while and thrown away: browsers and proxies look for the answer when they have sent.
    if (size > READ_AWAY * most) break;
    if (size <= most) chunks.push(value);
    else chunks.length = 0;
  }
  if (size > most) tooLarge();
  return new Uint8Array(Buffer.concat(chunks));
}

/** Bytes of a file that is sent in, of an archive (with pictures of its paper), of acts of a reading, and of everything else that is sent as JSON, at most. */
export const MOST_FILE_BYTES = 64 * 1024 * 1024;
export const MOST_ARCHIVE_BYTES = 256 * 1024 * 1024;
export const MOST_ACT_BYTES = 4 * 1024 * 1024;
const MOST_JSON_BYTES = 10_000;

/** JSON of a request, limited in size. */
export async function limitedJson(request: Request, most = MOST_JSON_BYTES): Promise<unknown> {
  const bytes = await limitedBody(request, most);
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    error(400, 'The request is no valid JSON.');
  }
}

/** What is sent as acts, if it is neither too deep nor too much to be looked at; else the request ends with status 400 or 413. */
export function countedActs(body: unknown): unknown {
  let acts = 0;
  let records = 0;
  const look = (value: unknown, depth: number): void => {
    if (typeof value !== 'object' || value === null) return;
    if (depth > LIMITS.depth) error(400, `The change is not as it should be: it is deeper than ${LIMITS.depth} records in each other.`);
    if (++records > LIMITS.records) error(413, 'This is more than is taken at once.');
    if ('type' in value && typeof value.type === 'string' && Object.hasOwn(COMMANDS, value.type) && ++acts > LIMITS.actsInAll)
      error(413, `These are more than the ${LIMITS.actsInAll} acts that are taken at once.`);
    for (const inner of Object.values(value)) look(inner, depth + 1);
  };
  look(body, 0);
  return body;
}
