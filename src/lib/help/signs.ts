import { CADENCE_NAMES } from '$core/analysis/facts';
import type { LaneName } from '../ribbon/folded.svelte';

/** A sign or short name that stands on the screen. */
export interface Sign {
  sign: string;
  means: string;
  /** The lane of the ribbon in which it stands. */
  lane?: LaneName | 'bars';
  /** What it is on the engraved page, as a selector. */
  at?: string;
}

export const SIGNS: readonly Sign[] = [
  ...Object.entries(CADENCE_NAMES).map(([sign, means]): Sign => ({ sign, means, lane: 'form' })),
  {
    sign: 'I ii V7 …',
    means: 'chords as Roman numerals; capital letters for major, small for minor; V7/V belongs to the key of V',
    at: '.analysis.chords'
  },
  { sign: '° ø', means: 'diminished; half-diminished' },
  { sign: 'C major …', means: 'the key from here on, as found or set', lane: 'keys', at: '.analysis.keys' },
  { sign: 'A B A′', means: 'sections; with a stroke, much the same again', lane: 'form' },
  { sign: 'arc', means: 'a phrase; a dashed arc over two or more: they belong together', lane: 'form' },
  { sign: 'dashed arc below', means: 'leads from the selected bars to the same music elsewhere', lane: 'form' },
  { sign: 'row of strokes', means: 'a sequence, a stroke to each unit', lane: 'form' },
  { sign: '⌜1 ⌝', means: 'a phrase with its number begins, and ends', at: '.analysis.phrases' },
  { sign: '●', means: 'set by the instructor' },
  { sign: '▲', means: 'the peak: the loudest moment of the plan', lane: 'plan' },
  { sign: '■ on the plan', means: 'a bar that was pulled louder or softer', lane: 'plan' },
  { sign: 'dotted line in the plan', means: 'how loud the accompaniment is', lane: 'plan' },
  { sign: '♩ 84 and a line', means: 'the printed tempo; the line rises and falls with it', lane: 'time' },
  { sign: '○ at a bar', means: 'proposals that are neither kept nor set aside', lane: 'bars' },
  { sign: 'stroke over a bar', means: 'something is marked there', lane: 'bars' },
  { sign: '| under the music', means: 'the chord changes here', at: '.analysis.rhythm' },
  { sign: '1 & (2) &', means: 'the count; in brackets where no note enters', at: '.analysis.count' },
  { sign: 'grey notes', means: 'connecting notes: they lead from one pillar to the next', at: 'g.note.connecting' },
  { sign: '˄ – ˅', means: 'upper, middle, lower voice within a line', at: 'g.note[class*=voice-]' },
  { sign: '[ ] and dashes', means: 'editorial: added by the instructor; full black stands in the source' },
  { sign: 'school', means: 'a question on which good musicians differ, with its answers; chosen under Style and schools' },
  { sign: 'sure, likely, doubtful', means: 'how far to trust what was found; a click tells how often such are right' }
];

/** What is said of something on the screen: of a sign on the page, or of all that stands in a lane when its head is reached. */
export function explanationOf(target: Element, reached: 'pointer' | 'keys'): { of: Element; signs: readonly Sign[] } | null {
  const head = target.closest('.lane > .head');
  const lane = head?.parentElement?.dataset.lane;
  if (head && lane) return { of: head, signs: SIGNS.filter((s) => s.lane === lane) };
  if (reached === 'keys') return null;
  for (const sign of SIGNS) {
    const of = sign.at ? target.closest(sign.at) : null;
    if (of) return { of, signs: [sign] };
  }
  return null;
}
