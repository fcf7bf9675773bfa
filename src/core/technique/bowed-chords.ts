import { BOWED_CHORDS } from '../style/strokes.ts';
import { lasts, height, type PlayerLine } from './player-line.ts';
import type { Note } from '../score/model.ts';

export type ChordBreak = 'from-below' | 'two-and-two' | 'together';
export type ChordRelease = 'top' | 'moving-voice' | 'hold';

/** A chord of three or four strings under the bow. */
export interface BowedChord {
  at: number;
  breaks: ChordBreak;
  /** Heads on which the bow stays. */
  stays: Note[];
  /** Heads whose written length the bow cannot hold: they are begun, and thought on. */
  thought: Note[];
}

/** How chords of three and more are sounded. Handbook 12.5; schools `chord-break` and `chord-release`. */
export function bowedChords(line: PlayerLine, breaks: ChordBreak, release: ChordRelease): BowedChord[] {
  return line.attacks.flatMap((a, at): BowedChord[] => {
    if (a.notes.length < 3 || a.grace) return [];
    // A bow that presses sounds three strings at once, but not four.
    const how = breaks === 'together' && a.notes.length > 3 ? 'two-and-two' : breaks;
    const stays = release === 'hold' ? a.notes.slice(-2) : [release === 'moving-voice' ? movingHead(line, at) : a.notes.at(-1)!];
    const long = lasts(a) > BOWED_CHORDS.shortSeconds;
    return [{ at, breaks: how, stays, thought: long ? a.notes.filter((n) => !stays.includes(n)) : [] }];
  });
}

/** The head that the next note answers by step, the highest of several; the top one where none is. */
function movingHead({ attacks }: PlayerLine, at: number): Note {
  const { notes } = attacks[at];
  const next = attacks[at + 1];
  const answered = next && notes.findLast((n) => next.notes.some((m) => [1, 2].includes(Math.abs(height(m) - height(n)))));
  return answered ?? notes[notes.length - 1];
}
