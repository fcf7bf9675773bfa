import type { CutSystem } from '$core/writing/facsimile';
import type { Written } from '$core/writing/written';
import type { Collation } from '$core/collation/collate';
import type { ReadingComparison } from '$core/edition/compare';
import type { Act } from '$core/reading/log';
import type { Reading } from '$core/reading/reading';
import type { Mock } from '$core/rehearsal/audition';
import type { Plan } from '$core/rehearsal/plan/plan';
import type { Visit } from '$core/rehearsal/plan/visit';

/** What goes between browser and server; both sides take the shapes from here. */

/** Meanwhile: how far the work is. */
export interface Stage {
  stage: string;
}

/** A long work ended with a sentence for the user instead of its result. */
export interface Refused {
  refused: string;
}

/** The lines of an import: the piece is on the shelf, or something has to be said first. */
export type ImportLine =
  | Stage
  | Refused
  | { pieces: number[] }
  /** The file holds several tunes: which are meant? */
  | { tunes: string[] }
  /** The very same file is on the shelf already, as this piece. */
  | { already: { piece: number; title: string } };

/** What was answered before an import: the tunes that are meant (indices), and that the same file may stand twice. */
export interface ImportAnswers {
  tunes?: number[];
  again?: boolean;
}

export type SourceLine = Stage | Refused | { added: true };
export type PagesLine = Stage | Refused | { page: string } | { pages: number };
export type FileLine = Stage | Refused | { file: string; name: string; type: string };
export type EditionLine = Stage | Refused | { edition: EditionRow };

/** A frozen edition without its bulk. */
export interface EditionRow {
  id: number;
  number: number;
  readingName: string;
  note: string;
  /** Seconds since 1970. */
  createdAt: number;
}

/** Acts that were sent, and what became of them: `already` names those that had been stored before. */
export interface Appended {
  revision: number;
  already: string[];
}

/** Acts after a revision; `more` when there are further ones behind them. */
export interface ActsAfter {
  acts: Act[];
  more: boolean;
}

/** The log has gone on elsewhere: what was missed, or the first of it. */
export interface Missed {
  conflict: true;
  revision: number;
  missed: Act[];
}

/** A source of a piece laid beside the one that the pages follow. */
export interface SourceCollation extends Collation {
  id: number;
  hash: string;
  name: string;
}

export interface Comparison {
  comparison: ReadingComparison;
  readings: [Reading, Reading];
}

/** A piece as it stands on the shelf. Times in seconds since 1970. */
export interface ShelfPiece {
  id: number;
  title: string;
  composer: string;
  instrument: string;
  bars: number;
  /** The teacher's own group. */
  group: string | null;
  /** The period that was chosen last; null where none was. */
  period: string | null;
  openedAt: number | null;
  createdAt: number;
  /** Acts in its readings, and editions that were frozen. */
  acts: number;
  editions: number;
}

/** The shelf, the newest piece first, and how many pieces lie in the bin. */
export interface Shelf {
  pieces: ShelfPiece[];
  bin: number;
}

/** A score that is being written, as it is listed. */
export interface WritingLine {
  id: number;
  title: string;
  /** The piece that it stands on the shelf as. */
  pieceId: number | null;
  /** Seconds since 1970. */
  updatedAt: number;
}

/** A score that is being written, whole. */
export interface WritingState {
  content: Written;
  revision: number;
  /** The name of the last saving. */
  lastSave: string | null;
  pieceId: number | null;
}

/** A page of paper, without its picture. */
export interface FacsimilePage {
  id: number;
  cuts: CutSystem[];
}

/** The paper that a piece was written from, and the writing that it belongs to. */
export interface Facsimile {
  writing: number;
  pages: FacsimilePage[];
}

/** A plan of practice with all that was practised of it. */
export interface PracticeState {
  plan: Plan;
  visits: Visit[];
  mocks: Mock[];
}

/** Something that is to be kept on the server, as it waits until it is. */
export interface Letter {
  id: string;
  method: 'PUT' | 'PATCH' | 'DELETE';
  address: string;
  body: unknown;
}
