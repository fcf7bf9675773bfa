import { soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { cmp, lte, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { tempoMarks } from '../score/tempo.ts';
import { dynamicAt, dynamicStep } from '../style/dynamics.ts';
import type { LoudnessAct } from '../style/terms/acts.ts';
import { readWords } from '../style/terms/read-words.ts';
import type { Steps, Tempo } from '../units.ts';

/** A dynamic level that holds from a moment on. */
export interface Level {
  start: Fraction;
  part: number;
  /** Staff of the hand that it holds for alone; 1 is said to all hands of the part. */
  staff: number;
  /** As it is printed; the level itself where words ask for it. */
  sign: string;
  step: Steps;
  editorial: boolean;
}

/** Words, printed or editorial, with what they do to the loudness. */
export interface LoudnessWords {
  start: Fraction;
  part: number;
  staff: number;
  text: string;
  act: LoudnessAct;
  editorial: boolean;
  /** Id of the direction or the marking. */
  id: string;
}

type Placed = Pick<Level, 'start' | 'part' | 'staff' | 'editorial'>;

/**
 * Staff of the hand for which a mark holds alone, 1 where it holds for all of its part: what stands over or in the upper staff, or
 * between the staves, is said to both hands, what stands under the lower one to it alone; where a file hangs all of its marks on the
 * lower staff they are for both.
 */
export function handsOf(score: Score): (mark: { part: number; staff: number; placement?: string }) => number {
  const said = score.directions.filter((d) => d.kind === 'dynamic' || d.kind === 'wedge');
  const upper = new Set(said.filter((d) => d.staff === 1).map((d) => d.part));
  return ({ part, staff, placement }) =>
    staff === 1 || (score.parts[part]?.staves ?? 1) < 2 || placement === 'above' || !upper.has(part) ? 1 : staff;
}

/** True when a level or hairpin of a staff is for a hand. */
export const isForHand = (mark: { staff: number }, hand: number): boolean => mark.staff === 1 || mark.staff === hand;

/** All words that act on loudness, in order of time. */
export function loudnessWords(score: Score, markings: readonly Marking[] = []): LoudnessWords[] {
  const hand = handsOf(score);
  const printed = score.directions.flatMap((d) =>
    d.kind === 'words' ? [{ ...placeOf(d, false), staff: hand(d), text: d.text, id: d.id }] : []
  );
  const editorial = markings.flatMap((m) => {
    const { words } = soundOf(m);
    return words === undefined ? [] : [{ ...placeOf(m, true), text: words, id: m.id }];
  });
  return [...printed, ...editorial]
    .flatMap((w) => {
      const act = readWords(w.text).loudness;
      return act ? [{ ...w, act }] : [];
    })
    .sort((a, b) => cmp(a.start, b.start));
}

const placeOf = ({ start, part, staff }: { start: Fraction; part: number; staff: number }, editorial: boolean): Placed => ({
  start,
  part,
  staff,
  editorial
});

/** The level that words bring where another is in force; null where they change nothing. */
function stepBy(act: LoudnessAct, before: Steps | null): Steps | null {
  if (act.kind === 'swell') return null;
  if (act.kind === 'step') return before === null ? null : before + act.way;
  const step = dynamicStep(act.sign)!;
  if (before !== null && ((act.bound === 'most' && before <= step) || (act.bound === 'least' && before >= step))) return null;
  return step;
}

/** All dynamic levels, printed and editorial, by sign and by word, in order of time. Accents such as sf are left out. */
export function dynamicLevels(score: Score, markings: readonly Marking[] = []): Level[] {
  const levels: Level[] = [];
  const add = (place: Placed, sign: string): void => {
    const step = dynamicStep(sign);
    if (step !== null) levels.push({ ...place, sign, step });
  };
  const hand = handsOf(score);
  for (const d of score.directions) if (d.kind === 'dynamic') add({ ...placeOf(d, false), staff: hand(d) }, d.value);
  for (const m of markings) {
    const { sign } = soundOf(m);
    if (sign !== undefined) add(placeOf(m, true), sign);
  }
  const inOrder = (a: Level, b: Level): number => cmp(a.start, b.start);
  levels.sort(inOrder);
  // Words come after the signs of their moment: what "più forte" is louder than has to be known.
  for (const { start, part, staff, editorial, act } of loudnessWords(score, markings)) {
    const before = levelInForce(levels, part, start, staff);
    // A sign at the same moment outweighs the word beside it: "p sotto voce".
    if (before && cmp(before.start, start) === 0) continue;
    const step = stepBy(act, before?.step ?? null);
    if (step === null) continue;
    levels.push({ start, part, staff, editorial, sign: dynamicAt(step), step });
    levels.sort(inOrder);
  }
  return levels;
}

/** The level in force in a part, or in the hand of one of its staves, at a moment; null where nothing has been said yet. */
export function levelInForce(levels: readonly Level[], part: number, at: Fraction, hand = 1): Level | null {
  let found: Level | null = null;
  for (const level of levels) {
    if (!lte(level.start, at)) break;
    if (level.part === part && isForHand(level, hand)) found = level;
  }
  return found;
}

/** Editorial metronome marks with their tempo, in order of time. */
export const metronomeMarkings = (markings: readonly Marking[]): { start: Fraction; tempo: Tempo }[] =>
  markings
    .flatMap((m) => {
      const { tempo } = soundOf(m);
      return tempo === undefined ? [] : [{ start: m.start, tempo }];
    })
    .sort((a, b) => cmp(a.start, b.start));

/** Tempo of a reading at a moment: of the last mark, printed or editorial; an editorial one outweighs the page at its moment. */
export function tempoOfReading(score: Score, markings: readonly Marking[], at: Fraction): Tempo | null {
  const own = metronomeMarkings(markings).findLast((m) => lte(m.start, at));
  const printed = tempoMarks(score).findLast((m) => lte(m.start, at));
  if (own && (!printed || lte(printed.start, own.start))) return own.tempo;
  return printed ? (printed.low + printed.high) / 2 : null;
}
