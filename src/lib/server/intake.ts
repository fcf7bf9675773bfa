import { ArchiveError, importPiece } from './archive.ts';
import type { Database } from './db/client.ts';
import { isArchive } from './jobs/read-archive.ts';
import { runTask, TaskRefused } from './jobs/run.ts';
import { addPiece } from './repositories/pieces.ts';

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
  const { archive, study } = await runTask('archive', { bytes }, progress, signal);
  if (signal.aborted) return null;
  try {
    return await importPiece(db, archive, study);
  } catch (error) {
    throw error instanceof ArchiveError ? new TaskRefused(error.message) : error;
  }
}
