import { importPiece } from './archive/archive.ts';
import { isArchive } from './archive/read-archive.ts';
import type { Database } from './db/open.ts';
import { hashOf } from './hash.ts';
import { runTask, TaskRefused } from './jobs/run.ts';
import { log } from './log.ts';
import { pictureOf } from './pictures.ts';
import { READY_LINES, type ReadyLine } from '../../core/edition/first-picture.ts';
import { addPiece, pieceOf, removePiece } from './repositories/pieces.ts';
import type { ImportAnswers, ImportLine } from '../shapes.ts';

/** What comes of an import: pieces on the shelf, or something that has to be said first; null when it was stopped. */
export type Taken = Exclude<ImportLine, { stage: string } | { refused: string }> | null;

interface File {
  name: string;
  bytes: Uint8Array;
}

/** The files that are meant: the one that came, or texts of their own of the chosen tunes in it. */
async function meant(owner: string, file: File, answers: ImportAnswers): Promise<File[] | { tunes: string[] }> {
  const tunes = await runTask('tunes', { bytes: file.bytes }, undefined, undefined, owner);
  if (tunes.length < 2) return [file];
  if (!answers.tunes) return { tunes: tunes.map((t) => t.title) };
  const chosen = answers.tunes.filter((k) => tunes[k]);
  if (!chosen.length) throw new TaskRefused('None of the tunes in the file was chosen.');
  return chosen.map((k) => ({ name: file.name, bytes: new TextEncoder().encode(tunes[k].text) }));
}

/** The first systems are engraved while the teacher still looks at the shelf; whoever opens the piece sooner asks again. */
function engraveAhead(db: Database, hash: string, owner: string): void {
  for (const line of Object.keys(READY_LINES) as ReadyLine[])
    void pictureOf(db, hash, line, owner).catch((error: unknown) => log().warn({ err: error }, 'the first systems could not be engraved'));
}

/**
 * Puts a file on the shelf: a score, the tunes in it, or the archive of a piece. Nothing is stored when it is refused or
 * stopped, not even when it is stopped at the last moment.
 * @throws TaskRefused with a sentence for the user
 */
export async function takeIn(
  db: Database,
  owner: string,
  file: File,
  answers: ImportAnswers,
  progress: (stage: string) => void,
  signal: AbortSignal
): Promise<Taken> {
  const stored: number[] = [];
  const takeBack = async (): Promise<null> => {
    for (const id of stored) await removePiece(db, id);
    return null;
  };
  try {
    if (isArchive(file.bytes)) {
      const archive = await runTask('archive', { bytes: file.bytes }, progress, signal, owner);
      if (signal.aborted) return null;
      stored.push(await importPiece(db, owner, archive));
    } else {
      const files = await meant(owner, file, answers);
      if ('tunes' in files) return files;
      for (const { name, bytes } of files) {
        const already = answers.again ? null : await pieceOf(db, owner, hashOf(bytes));
        if (already && files.length === 1) return { already: { piece: already.id, title: already.title } };
        const intake = await runTask('intake', { bytes, fileName: name }, progress, signal, owner);
        if (signal.aborted) return await takeBack();
        stored.push((await addPiece(db, name, bytes, intake, owner)).id);
        engraveAhead(db, hashOf(bytes), owner);
      }
    }
  } catch (error) {
    await takeBack();
    throw error;
  }
  return signal.aborted ? takeBack() : { pieces: stored };
}
