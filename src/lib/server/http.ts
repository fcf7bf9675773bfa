import { error } from '@sveltejs/kit';
import type Joi from 'joi';

/** The value, if it fits the schema; else the request ends with status 400 and one sentence. */
export function valid<T>(schema: Joi.Schema, value: unknown, what: string): T {
  const result = schema.validate(value, { abortEarly: true, errors: { wrap: { label: false } } });
  if (result.error) error(400, `${what} is not as it should be: ${result.error.details[0].message}.`);
  return result.value as T;
}

/** The body of a request up to a size; a larger one ends it with status 413. */
export async function limitedBody(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = () => error(413, `This is larger than the ${Math.round(most / 1024 / 1024)} MB that are allowed.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > most) tooLarge();
    chunks.push(value);
  }
  return new Uint8Array(Buffer.concat(chunks));
}

/** Bytes of a file that is sent in, of acts of a reading, and of everything else that is sent as JSON, at most. */
export const MOST_FILE_BYTES = 64 * 1024 * 1024;
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

/** A title as the name of a file, without its ending. */
export const fileName = (title: string): string =>
  title
    .normalize('NFD')
    .replace(/[^\w]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase() || 'edition';
