import { error } from '@sveltejs/kit';
import type { PieceBounds } from '../../core/schema-kit.ts';
import type { Act, Standing } from '../../core/reading/log.ts';
import type {
  ActsAfter,
  Appended,
  Comparison,
  EditionRow,
  Facsimile,
  ImportAnswers,
  Missed,
  Shelf,
  SourceCollation,
  WritingLine
} from '../shapes.ts';
import { zipped } from './archive/all-archives.ts';
import { exportPiece } from './archive/archive.ts';
import type { Database } from './db/open.ts';
import { identityOf } from './db/settings.ts';
import { fileName } from './file-name.ts';
import { fileOnce } from './files.ts';
import type { Format } from './formats.ts';
import { takeIn, type Taken } from './intake.ts';
import { openSource, type EditionSource } from './jobs/edition-source.ts';
import type { Progress } from './jobs/progress.ts';
import { runTask, TaskRefused } from './jobs/run.ts';
import * as editions from './repositories/editions.ts';
import * as players from './repositories/players.ts';
import * as pieces from './repositories/pieces.ts';
import * as readings from './repositories/readings.ts';
import * as sources from './repositories/sources.ts';
import * as facsimiles from './repositories/facsimiles.ts';
import * as writings from './repositories/writings.ts';
import type { Player } from '../../core/players/player.ts';
import { LIMITS } from '../../core/style/limits.ts';
import type { Written } from '../../core/writing/written.ts';
import { StudioPractice } from './studio-practice.ts';
import { StudioWriting } from './studio-writing.ts';
import { standingOf } from './standing.ts';
import { pictureOf } from './pictures.ts';
import { studyOfSource } from './studies.ts';
import type { ReadyLine } from '../../core/edition/first-picture.ts';
import type { Survey } from '../../core/survey/survey.ts';

/**
 * What one person may reach. Routes get things here, or an answer with status 404 and one sentence; the bare database
 * stays inside.
 */
export class Studio {
  constructor(
    private readonly db: Database,
    readonly person: string
  ) {}

  /** The shelf, the newest piece first. */
  async shelf(): Promise<Shelf> {
    const { bin } = await pieces.countPieces(this.db, this.person);
    return { pieces: await pieces.listShelf(this.db, this.person), bin };
  }

  bin(): Promise<pieces.BinnedPiece[]> {
    return pieces.listBin(this.db, this.person);
  }

  /** Takes a piece out of the bin again. */
  async takeBack(id: number): Promise<void> {
    await this.inBin(id);
    await pieces.unbinPiece(this.db, id);
  }

  /** Removes a piece in the bin for good. @param withEditions that its frozen editions go too, which must be meant */
  async removeForGood(id: number, withEditions: boolean): Promise<void> {
    await this.inBin(id);
    if (!withEditions && (await editions.listEditions(this.db, id)).length)
      error(409, 'Editions were frozen of this piece; say that they go with it.');
    await pieces.removePiece(this.db, id);
  }

  private async inBin(id: number): Promise<void> {
    const row = await pieces.findPiece(this.db, id);
    if (row?.owner !== this.person || row.removedAt === null) error(404, 'This piece is not in the bin.');
  }

  /** The archives of all pieces in one compressed file, those in the bin too. */
  allArchives(): AsyncGenerator<Uint8Array> {
    const { db, person } = this;
    return zipped(
      (async function* () {
        for (const row of await pieces.allPieces(db, person))
          yield { name: `${fileName(row.title)}-${row.id}.nuvelo.json`, text: exportPiece(db, row) };
      })()
    );
  }

  async piece(id: number): Promise<StudioPiece> {
    const row = await pieces.findPiece(this.db, id);
    if (row?.owner !== this.person) error(404, 'This piece is not on the shelf.');
    if (row.removedAt !== null) error(404, 'This piece lies in the bin; take it back to go on with it.');
    return new StudioPiece(this.db, this.person, row);
  }

  async reading(id: number): Promise<StudioReading> {
    const row = await readings.findReading(this.db, id);
    const piece = row && (await pieces.findPiece(this.db, row.pieceId));
    if (!row || piece?.owner !== this.person) error(404, 'This reading is not here any more.');
    if (piece.removedAt !== null) error(404, 'The piece of this reading lies in the bin; take it back to go on with it.');
    return new StudioReading(this.db, this.person, piece, row);
  }

  async edition(id: number): Promise<StudioEdition> {
    const found = await editions.findEdition(this.db, id);
    const piece = found && (await pieces.findPiece(this.db, found.pieceId));
    if (!found || piece?.owner !== this.person) error(404, 'This edition is not here.');
    return new StudioEdition(this.db, this.person, id, found);
  }

  /** Everybody whom readings are for: kept in one place, by key. */
  players(): Promise<Player[]> {
    return players.listPlayers(this.db, this.person);
  }

  /** Keeps what is said of a player, known or new. */
  async keepPlayer(key: string, content: players.PlayerContent): Promise<void> {
    const known = await this.players();
    if (known.length >= LIMITS.players && !known.some((p) => p.key === key)) error(409, `A studio has at most ${LIMITS.players} players.`);
    await players.keepPlayer(this.db, this.person, key, content);
  }

  /** Takes a player away; the readings stay, and keep the name. */
  async removePlayer(key: string): Promise<void> {
    if (!(await players.removePlayer(this.db, this.person, key))) error(404, 'This player is not here any more.');
  }

  /** Plans of practice, what was practised, and the sheets for it. */
  get practice(): StudioPractice {
    return new StudioPractice(this.db, this.person);
  }

  writings(): Promise<WritingLine[]> {
    return writings.listWritings(this.db, this.person);
  }

  beginWriting(content: Written): Promise<number> {
    return writings.addWriting(this.db, this.person, content);
  }

  async writing(id: number): Promise<StudioWriting> {
    const found = await writings.findWriting(this.db, this.person, id);
    if (!found) error(404, 'Nothing is being written under this number.');
    return new StudioWriting(this.db, this.person, id, found);
  }

  /**
   * A piece that was written or typed is opened again in the writing room. What was imported from a file is never altered.
   * @returns the number of the writing
   */
  async openForWriting(pieceId: number): Promise<number> {
    const { row } = await this.piece(pieceId);
    const written = await writings.writingOfPiece(this.db, pieceId);
    if (written !== undefined) return written;
    const source = (await pieces.findSourceFile(this.db, row.sourceHash))!;
    if (source.format !== 'abc')
      error(409, 'This piece came in as a file, which is never altered; what is meant otherwise is put into Reading as an emendation.');
    const { bytes, document } = source;
    const taken = await runTask('written', { bytes, document }, undefined, undefined, this.person);
    if (!taken) error(409, 'The writing room holds one instrument on one staff or two; this tune has more.');
    return writings.addWriting(this.db, this.person, taken, pieceId);
  }

  /** The document of a source; it is known by its sum, which only who has the piece knows. */
  async document(hash: string): Promise<string> {
    const document = await pieces.findDocument(this.db, hash);
    if (document === undefined) error(404, 'This source is not here.');
    return document;
  }

  /** What this engine found in a source, as JSON. */
  async facts(hash: string): Promise<string> {
    await this.document(hash);
    return (await studyOfSource(this.db, hash, this.person)).facts;
  }

  /** The first systems of a source, engraved. */
  async picture(hash: string, line: ReadyLine): Promise<string> {
    await this.document(hash);
    return pictureOf(this.db, hash, line, this.person);
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

  /** The survey of its source by this engine. */
  async survey(): Promise<Survey> {
    return (await studyOfSource(this.db, this.row.sourceHash, this.person)).survey;
  }

  async document(): Promise<string> {
    return (await pieces.findDocument(this.db, this.row.sourceHash))!;
  }

  /** The pages of paper that it was written from; null where there are none. */
  async paper(): Promise<Facsimile | null> {
    const writing = await writings.writingOfPiece(this.db, this.row.id);
    const pages = writing === undefined ? [] : await facsimiles.listPages(this.db, writing);
    return writing !== undefined && pages.length ? { writing, pages } : null;
  }

  readings(): Promise<readings.ReadingRow[]> {
    return readings.listReadings(this.db, this.row.id);
  }

  /** Where the log of one of its readings stands, and in which history. */
  async standing(readingId: number): Promise<{ standing: Standing; history: string }> {
    return { standing: await standingOf(this.db, readingId, this.person), history: await identityOf(this.db) };
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
      found.push({ ...source, ...(await runTask('collate', { document, other }, undefined, signal, this.person)) });
    return found;
  }

  /** @throws TaskRefused when the piece has that very file already */
  async addSource(name: string, fileName: string, bytes: Uint8Array, progress: Progress, signal: AbortSignal): Promise<void> {
    const intake = await runTask('intake', { bytes, fileName }, progress, signal, this.person);
    if (signal.aborted) return;
    if (!(await sources.addSource(this.db, this.row.id, name, fileName, bytes, intake)))
      throw new TaskRefused('The piece has this very file already.', 409);
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
    const intake = await runTask('excerpt', { document: await this.document(), from, to }, undefined, undefined, this.person);
    const bytes = new TextEncoder().encode(intake.document);
    return (await pieces.addPiece(this.db, `${this.row.title}.musicxml`, bytes, intake, this.person)).id;
  }

  /** What differs between two states of the piece: "reading-1" and "edition-2". */
  async comparison(a: string, b: string, signal: AbortSignal): Promise<Comparison> {
    const [one, two] = [await this.state(a), await this.state(b)];
    return runTask('compare', { a: one, b: two }, undefined, signal, this.person);
  }

  /** Its archive in pieces of text. */
  archive(): AsyncGenerator<string> {
    return exportPiece(this.db, this.row);
  }

  /** Puts it into the bin. */
  async remove(): Promise<void> {
    await pieces.binPiece(this.db, this.row.id);
  }

  /** Puts it into a group of the shelf, or out of all. */
  moveTo(group: string | null): Promise<void> {
    return pieces.groupPiece(this.db, this.row.id, group);
  }

  /** One of its rooms is opened. */
  opened(): Promise<void> {
    return pieces.pieceOpened(this.db, this.row.id);
  }

  private async state(name: string): Promise<EditionSource> {
    const [kind, number] = name.split('-');
    if (kind === 'edition') {
      const found = await editions.findEdition(this.db, Number(number));
      if (found?.pieceId === this.row.id) return { frozen: found.content };
    } else {
      const found = await readings.findReading(this.db, Number(number));
      if (found?.pieceId === this.row.id) return (await readings.findEditionSource(this.db, this.row, found.id))!;
    }
    error(404, 'One of the two is not here any more.');
  }
}

/** A frozen edition of the person who asks. */
export class StudioEdition {
  constructor(
    private readonly db: Database,
    private readonly person: string,
    private readonly id: number,
    private readonly found: NonNullable<Awaited<ReturnType<typeof editions.findEdition>>>
  ) {}

  get title(): string {
    return this.found.title;
  }

  get number(): number {
    return this.found.number;
  }

  /** As a file: the PDF is the one that was frozen, the other formats are made of what was frozen. */
  async file(format: Format, progress: Progress, signal: AbortSignal): Promise<Uint8Array> {
    if (format === 'pdf') return (await editions.findPdf(this.db, this.id))!;
    const make = () => runTask('file', { source: { frozen: this.found.content }, format }, progress, signal, this.person);
    return fileOnce(`${await identityOf(this.db)} edition ${this.id} ${format}`, make);
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

  /** Acts after a revision of the history that is known. */
  async actsAfter(revision: number, history: string | null): Promise<ActsAfter> {
    await this.sameHistory(history);
    if (revision > (await readings.revisionOf(this.db, this.row.id))) otherHistory();
    return readings.actsAfter(this.db, this.row.id, revision);
  }

  async append(base: number, acts: readonly Act[], history: string | null): Promise<Appended | Missed> {
    await this.sameHistory(history);
    try {
      return await readings.append(this.db, this.row.id, base, acts, this.person);
    } catch (fault) {
      if (fault instanceof readings.OtherHistory) otherHistory();
      throw fault;
    }
  }

  /** What its piece has, for checking what is said of it. */
  bounds(): Promise<PieceBounds> {
    return pieces.boundsOf(this.db, this.piece);
  }

  /** All that its pages and files are made of. */
  async source(): Promise<EditionSource> {
    return (await readings.findEditionSource(this.db, this.piece, this.row.id))!;
  }

  /** Its pages, each told as soon as it is made. @returns how many there are */
  async pages(progress: Progress, signal: AbortSignal): Promise<number> {
    return (await runTask('pages', await this.source(), progress, signal, this.person)).count;
  }

  /** Its document, with the readings of other sources that were chosen. */
  async document(signal: AbortSignal): Promise<string> {
    return runTask('chosen', await this.source(), undefined, signal, this.person);
  }

  /** As a file; made once for each state of the reading. */
  async file(format: Format, progress: Progress, signal: AbortSignal): Promise<Uint8Array> {
    const { db, row, piece } = this;
    const state = [await identityOf(db), row.id, await readings.revisionOf(db, row.id), piece.title, piece.sourceName];
    const others = await sources.nameSources(db, piece.id);
    const make = async () => runTask('file', { source: await this.source(), format }, progress, signal, this.person);
    return fileOnce(JSON.stringify([...state, others, format]), make);
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
    const source = await this.source();
    const pdf = await runTask('file', { source, format: 'pdf' }, progress, signal, this.person);
    if (signal.aborted) return null;
    const edition = { readingName: this.row.name, note, content: openSource(source), pdf: pdf as Uint8Array };
    return editions.addEdition(this.db, this.piece.id, edition, this.person);
  }

  /** A window that knows another history than the one here must not go on in this one. */
  private async sameHistory(history: string | null): Promise<void> {
    if (history !== null && history !== (await identityOf(this.db))) otherHistory();
  }
}

function otherHistory(): never {
  error(410, 'The server goes on from a backup that was restored since this window was opened.');
}
