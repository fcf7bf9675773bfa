import { ScoreError } from '../../../core/score/model.ts';
import { archiveSchema, type Archive } from './archive.ts';

/** Whether a file is JSON, as an archive is; no score begins so. */
export const isArchive = (bytes: Uint8Array): boolean => /^\uFEFF?\s*\{/.test(Buffer.from(bytes.subarray(0, 64)).toString('utf8'));

/** The archive of a piece, every act in it checked. @throws ScoreError with a sentence for the user */
export function readArchive(bytes: Uint8Array): Archive {
  let value: unknown;
  try {
    value = JSON.parse(
      Buffer.from(bytes)
        .toString('utf8')
        .replace(/^\uFEFF/, '')
    );
  } catch (error) {
    throw new ScoreError(`This looks like an archive but is no valid JSON: ${(error as Error).message}.`);
  }
  const result = archiveSchema.validate(value, { convert: false, errors: { wrap: { label: false } } });
  if (result.error) throw new ScoreError(`This is not the archive of a piece: ${result.error.details[0].message}.`);
  return result.value as Archive;
}
