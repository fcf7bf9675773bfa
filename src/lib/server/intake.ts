import { ArchiveError, importPiece, type Archive } from './archive.ts';
import type { Database } from './db/client.ts';
import { runTask, TaskRefused } from './jobs/run.ts';
import { addPiece } from './repositories/pieces.ts';
import { archiveSchema } from './schemas.ts';

/** Whether a file is JSON, as an archive is; no score begins so. */
const isArchive = (bytes: Uint8Array): boolean => /^\uFEFF?\s*\{/.test(Buffer.from(bytes.subarray(0, 64)).toString('utf8'));

/**
 * Puts a file on the shelf: a score, or the archive of a piece. Nothing is stored when it is refused or stopped.
 * @returns the number of the piece; null when it was stopped
 * @throws TaskRefused with a sentence for the user
 */
export async function takeIn(
  db: Database,
  fileName: string,
  bytes: Uint8Array,
  progress: (stage: string) => void,
  signal: AbortSignal
): Promise<number | null> {
  if (!isArchive(bytes)) {
    const intake = await runTask('intake', { bytes, fileName }, progress, signal);
    return signal.aborted ? null : (await addPiece(db, fileName, bytes, intake)).id;
  }
  progress('reading the archive');
  const archive = parsed(bytes);
  const study = await runTask('study', { document: archive.sources[0].document }, progress, signal);
  if (signal.aborted) return null;
  try {
    return await importPiece(db, archive, study);
  } catch (error) {
    throw error instanceof ArchiveError ? new TaskRefused(error.message) : error;
  }
}

function parsed(bytes: Uint8Array): Archive {
  let value: unknown;
  try {
    value = JSON.parse(
      Buffer.from(bytes)
        .toString('utf8')
        .replace(/^\uFEFF/, '')
    );
  } catch (error) {
    throw new TaskRefused(`This looks like an archive but is no valid JSON: ${(error as Error).message}.`);
  }
  const result = archiveSchema.validate(value, { errors: { wrap: { label: false } } });
  if (result.error) throw new TaskRefused(`This is not the archive of a piece: ${result.error.details[0].message}.`);
  return result.value as Archive;
}
