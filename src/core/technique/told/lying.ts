import type { MarkingKind } from '../../markings/marking-kind.ts';
import type { Note } from '../../score/model.ts';
import type { Fraction } from '../../score/fraction.ts';
import type { SurveyGroup } from '../../survey/line.ts';

/** What a search proposes at a note, as a marking that may be written into the part. */
export interface LyingMark {
  kind: MarkingKind;
  value: string;
  /** The note that it hangs on; a stretch has an end instead. */
  note?: string;
  start: Fraction;
  end?: Fraction;
  staff: number;
  measure: number;
  /** An editor would write it; else hand or bow come there by themselves. */
  needed: boolean;
}

/** Another way for a stretch of bars: what it is, what it costs more, and what is written when it is taken. */
export interface OtherWay {
  from: number;
  to: number;
  text: string;
  price: string;
  marks: LyingMark[];
}

/** How a part lies on its instrument, as the rooms show it: plain records. */
export interface HowItLies {
  instrument: string;
  /** What each note is played with, and which of it an editor would write. */
  marks: LyingMark[];
  /** By bar and by what they are of, in the order in which they are read. */
  lines: { measure: number; of: string; text: string }[];
  /** Other ways, with their price. */
  ways: OtherWay[];
  /** What stands over its place when it is asked for: how long the air has to last, which movement it is. */
  words: { of: 'breath' | 'movement'; start: Fraction; text: string }[];
  /** Notes between which the bow passes over a string. */
  crossings: { from: string; to: string; start: Fraction }[];
  findings: { start: Fraction; measure: number; what: string }[];
  /** What the whole piece asks. */
  asks: SurveyGroup;
}

/** A mark at a note. @param needed an editor would write it: hand or bow do not come there by themselves */
export const mark = (kind: MarkingKind, value: string, n: Note, needed = true): LyingMark => ({
  kind,
  value,
  note: n.id,
  start: n.start,
  staff: n.staff,
  measure: n.measure,
  needed
});
