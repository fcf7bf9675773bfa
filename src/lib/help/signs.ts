import { CADENCE_NAMES } from '$core/analysis/facts';

/** Signs and short names that stand on the screen, with what they mean. */
export const SIGNS: { sign: string; means: string }[] = [
  ...Object.entries(CADENCE_NAMES).map(([sign, means]) => ({ sign, means })),
  { sign: 'I ii V7 …', means: 'chords as Roman numerals; capital letters for major, small for minor; V7/V belongs to the key of V' },
  { sign: '° ø', means: 'diminished; half-diminished' },
  { sign: 'A B A′', means: 'sections; with a stroke, much the same again' },
  { sign: 'arc', means: 'a phrase; a dashed arc over two or more: they belong together' },
  { sign: 'dashed arc below', means: 'leads from the selected bars to the same music elsewhere' },
  { sign: 'row of strokes', means: 'a sequence, a stroke to each unit' },
  { sign: '●', means: 'set by the instructor' },
  { sign: '▲', means: 'the peak: the loudest moment of the plan' },
  { sign: '■ on the plan', means: 'a bar that was pulled louder or softer' },
  { sign: 'dotted line in the plan', means: 'how loud the accompaniment is' },
  { sign: '○ at a bar', means: 'proposals that are neither kept nor set aside' },
  { sign: 'stroke over a bar', means: 'something is marked there' },
  { sign: 'grey notes', means: 'connecting notes: they lead from one pillar to the next' },
  { sign: '˄ – ˅', means: 'upper, middle, lower voice within a line' },
  { sign: '[ ] and dashes', means: 'editorial: added by the instructor; full black stands in the source' },
  { sign: 'school', means: 'a question on which good musicians differ, with its answers; chosen under Style and schools' },
  { sign: 'sure, likely, doubtful', means: 'how far to trust what was found; a click tells how often such are right' }
];
