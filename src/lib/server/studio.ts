import { error } from '@sveltejs/kit';
import type { EditionInput } from '../../core/edition/open-edition.ts';
import type { Act } from '../../core/reading/log.ts';
import type { Command } from '../../core/reading/commands/index.ts';
import type { Appended, Comparison, EditionRow, ImportAnswers, Missed, SourceCollation } from '../shapes.ts';
import { exportPiece, type Archive } from './archive/archive.ts';
import type { Database } from './db/client.ts';
import { takeIn, type Taken } from './intake.ts';
import type { Progress } from './jobs/progress.ts';
import { runTask, TaskRefused } from './jobs/run.ts';
import * as editions from './repositories/editions.ts';
import * as pieces from './repositories/pieces.ts';
import * as readings from './repositories/readings.ts';
import * as sources from './repositories/sources.ts';
import type { SentStudy } from './study.ts';

/**
 * What one person may reach. Routes get things here, or an answer with status 404 and one sentence; the bare database
 * stays inside.
 */
export class Studio {
  constructor(
    private readonly db: Database,
    readonly person: string
  ) {}

  pieces(): Promise<pieces.Piece[]> {
    return pieces.listPieces(this.db, this.person);
  }

  async piece(id: number): Promise<StudioPiece> {
    const row = await pieces.findPiece(this.db, id);
    if (row?.owner !== this.person) error(404, 'This piece is not on the shelf.');
    return new StudioPiece(this.db, this.person, row);
  }

  async reading(id: number): Promise<StudioReading> {
    const row = await readings.findReading(this.db, id);
    const piece = row && (await pieces.findPiece(this.db, row.pieceId));
    if (!row || piece?.owner !== this.person) error(404, 'This reading is not here any more.');
    return new StudioReading(this.db, this.person, piece, row);
  }

  async edition(id: number): Promise<NonNullable<Awaited<ReturnType<typeof editions.findEdition>>>> {
    const found = await editions.findEdition(this.db, id);
    const piece = found && (await pieces.findPiece(this.db, found.pieceId));
    if (!found || piece?.owner !== this.person) error(404, 'This edition is not here.');
    return found;
  }

  /** The document of a source; it is known by its sum, which only who has the piece knows. */
  async document(hash: string): Promise<string> {
    const document = await pieces.findDocument(this.db, hash);
    if (document === undefined) error(404, 'This source is not here.');
    return document;
  }

  /** Puts a file on the shelf. */
  take(name: string, bytes: Uint8Array, answers: ImportAnswers, progress: (stage: string) => void, signal: AbortSignal): Promise<Taken> {
    return takeIn(this.db, this.person, { name, bytes }, answers, progress, signal);
  }
}

/** A piece of the person who asks. */
export class StudioPiece {
  constructor(
    private readonly db: Database,
    private readonly person: string,
    readonly row: pieces.Piece
  ) {}

  /** The study of its source; worked out again, once, where the engine is newer than what is stored. */
  async study(): Promise<SentStudy> {
    const known = await pieces.findStudy(this.db, this.row.sourceHash);
    if (known) return known;
    const fresh = await runTask('study', { document: await this.document() });
    await pieces.storeStudy(this.db, this.row.sourceHash, fresh);
    return { facts: JSON.stringify(fresh.facts), survey: fresh.survey };
  }

  async document(): Promise<string> {
    return (await pieces.findDocument(this.db, this.row.sourceHash))!;
  }

  readings(): Promise<readings.ReadingRow[]> {
    return readings.listReadings(this.db, this.row.id);
  }

  log(readingId: number): Promise<Command[]> {
    return readings.logOf(this.db, readingId);
  }

  editions(): Promise<EditionRow[]> {
    return editions.listEditions(this.db, this.row.id);
  }

  otherSources(): Promise<sources.NamedSource[]> {
    return sources.nameSources(this.db, this.row.id);
  }

  /** Every further source with the bars that belong together and the differences. */
  async collations(signal: AbortSignal): Promise<SourceCollation[]> {
    const document = await this.document();
    const found: SourceCollation[] = [];
    for (const { document: other, ...source } of await sources.listSources(this.db, this.row.id))
      found.push({ ...source, ...(await runTask('collate', { document, other }, () => {}, signal)) });
    return found;
  }

  /** @throws TaskRefused when the piece has that very file already */
  async addSource(name: string, fileName: string, bytes: Uint8Array, progress: Progress, signal: AbortSignal): Promise<void> {
    const intake = await runTask('intake', { bytes, fileName }, progress, signal);
    if (signal.aborted) return;
    if (!(await sources.addSource(this.db, this.row.id, name, fileName, bytes, intake)))
      throw new TaskRefused('The piece has this very file already.');
  }

  /** Names the source that the pages follow. */
  async nameSource(name: string): Promise<void> {
    await sources.nameSource(this.db, this.row.id, name);
  }

  /** Takes a further source away; what was decided about it stays in the readings and counts again when it comes back. */
  async removeSource(id: number): Promise<void> {
    if (!(await sources.removeSource(this.db, this.row.id, id))) error(404, 'This source is not here any more.');
  }

  async copyReading(from: number, name: string): Promise<number> {
    if ((await readings.findReading(this.db, from))?.pieceId !== this.row.id) error(404, 'This reading is not one of the piece.');
    return (await readings.copyReading(this.db, from, name, this.person))!.id;
  }

  /** A piece of its own of some bars (measure indices, both included). */
  async excerpt(from: number, to: number): Promise<number> {
    const intake = await runTask('excerpt', { document: await this.document(), from, to });
    const bytes = new TextEncoder().encode(intake.document);
    return (await pieces.addPiece(this.db, `${this.row.title}.musicxml`, bytes, intake, this.person)).id;
  }

  /** What differs between two states of the piece: "reading-1" and "edition-2". */
  async comparison(a: string, b: string, signal: AbortSignal): Promise<Comparison> {
    const [one, two] = [await this.state(a), await this.state(b)];
    const comparison = await runTask('compare', { a: one, b: two }, () => {}, signal);
    return { comparison, readings: [one.reading, two.reading] };
  }

  async archive(): Promise<Archive> {
    return (await exportPiece(this.db, this.row.id))!;
  }

  async remove(): Promise<void> {
    await pieces.removePiece(this.db, this.row.id);
  }

  private async state(name: string): Promise<EditionInput> {
    const [kind, number] = name.split('-');
    if (kind === 'edition') {
      const found = await editions.findEdition(this.db, Number(number));
      if (found?.pieceId === this.row.id) return found.content;
    } else {
      const found = await readings.findEditionInput(this.db, Number(number));
      if (found?.piece.id === this.row.id) return found.input;
    }
    error(404, 'One of the two is not here any more.');
  }
}

/** A reading of a piece of the person who asks. */
export class StudioReading {
  constructor(
    private readonly db: Database,
    private readonly person: string,
    readonly piece: pieces.Piece,
    readonly row: readings.ReadingRow
  ) {}

  actsAfter(revision: number): Promise<Act[]> {
    return readings.actsAfter(this.db, this.row.id, revision);
  }

  append(base: number, acts: readonly Act[]): Promise<Appended | Missed> {
    return readings.append(this.db, this.row.id, base, acts, this.person);
  }

  /** All that its pages and files are made of. */
  async input(): Promise<EditionInput> {
    return (await readings.findEditionInput(this.db, this.row.id))!.input;
  }

  async rename(name: string): Promise<void> {
    await readings.renameReading(this.db, this.row.id, name);
  }

  async remove(): Promise<void> {
    const result = await readings.removeReading(this.db, this.row.id);
    if (result === 'missing') error(404, 'This reading is not here any more.');
    if (result === 'last') error(409, 'A piece keeps at least one reading.');
  }

  /** Freezes the reading as the piece's next edition; null when it was stopped. */
  async freeze(note: string, progress: Progress, signal: AbortSignal): Promise<EditionRow | null> {
    const content = await this.input();
    const pdf = await runTask('file', { input: content, format: 'pdf' }, progress, signal);
    if (signal.aborted) return null;
    const edition = { readingName: this.row.name, note, content, pdf: pdf as Uint8Array };
    return editions.addEdition(this.db, this.piece.id, edition, this.person);
  }
}
