import { KEYBOARD } from '../style/keyboard-fingers.ts';
import { cmp } from '../score/fraction.ts';
import type { Note, Part, Score } from '../score/model.ts';
import type { HandName } from './keyboard.ts';
import { height, type Attack, type PlayerLine } from './player-line.ts';

/** Below this mean height one staff alone is the left hand's. MIDI number. [M] */
const LEFT_BELOW = 55;

/** Which hand plays a note: by its staff; one staff alone is one hand. */
export function handOf(score: Score, part: Part): (note: Note) => HandName {
  if (part.staves > 1) return (n) => (n.staff === 1 ? 'right' : 'left');
  const heights = score.notes.filter((n) => n.part === part.index && !n.rest && n.pitch).map(height);
  const mean = heights.reduce((a, b) => a + b, 0) / Math.max(1, heights.length);
  const only: HandName = heights.length && mean < LEFT_BELOW ? 'left' : 'right';
  return () => only;
}

/** A wide chord of one hand. */
export interface WideChord {
  hand: HandName;
  attack: Attack;
  semitones: number;
  possible: boolean;
  /** Heads that the other hand can take, where this one does not reach. */
  shared: { note: Note; to: HandName }[];
  /** Heads that double another an octave away: one may be left out. */
  doubled: Note[];
}

const FINGERS = 5;
/** The thumb takes two keys that lie side by side. */
const KEYS = FINGERS + 1;

/**
 * Chords of each hand that reach an octave or more, or hold more keys than fingers; where one is not possible, which heads the
 * other hand takes, keeping its own. Handbook 14.2.
 * @param reach semitones from the lowest to the highest key that the player's hand spans
 */
export function wideChords(lines: Readonly<Partial<Record<HandName, PlayerLine>>>, reach: number = KEYBOARD.reach): WideChord[] {
  const found: WideChord[] = [];
  for (const hand of ['right', 'left'] as const) {
    const other: HandName = hand === 'right' ? 'left' : 'right';
    for (const attack of lines[hand]?.attacks ?? []) {
      const { notes } = attack;
      if (notes.length < 2) continue;
      const semitones = height(notes[notes.length - 1]) - height(notes[0]);
      const possible = semitones <= reach && notes.length <= KEYS;
      if (semitones < KEYBOARD.wide && possible) continue;
      const doubled = notes.filter(
        (n, k) => k > 0 && k < notes.length - 1 && notes.some((o) => o !== n && (height(o) - height(n)) % 12 === 0)
      );
      found.push({
        hand,
        attack,
        semitones,
        possible,
        shared: possible ? [] : share(attack, hand, soundingIn(lines[other], attack), reach),
        doubled
      });
    }
  }
  return found.sort((a, b) => cmp(a.attack.start, b.attack.start));
}

/** What a hand holds while an attack of the other begins. */
const soundingIn = (line: PlayerLine | undefined, { start }: Attack): Note[] =>
  line?.attacks.filter((a) => !a.grace && cmp(a.start, start) <= 0 && cmp(a.end, start) > 0).flatMap((a) => a.notes) ?? [];

/** The fewest heads from the side of the other hand without which the chord lies under the hand. */
function share({ notes }: Attack, hand: HandName, theirs: readonly Note[], reach: number): WideChord['shared'] {
  const to: HandName = hand === 'right' ? 'left' : 'right';
  const order = hand === 'right' ? [...notes] : [...notes].reverse();
  for (let count = 1; count < order.length; count++) {
    const given = order.slice(0, count);
    const kept = order.slice(count).map(height);
    const taken = [...theirs, ...given].map(height);
    const mine = Math.max(...kept) - Math.min(...kept);
    const their = Math.max(...taken) - Math.min(...taken);
    if (mine <= reach && kept.length <= KEYS) return their <= reach && taken.length <= KEYS ? given.map((note) => ({ note, to })) : [];
  }
  return [];
}
