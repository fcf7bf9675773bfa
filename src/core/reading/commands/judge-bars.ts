import { without, type CommandDescription } from './command.ts';

/** What a teacher says of bars beside what was measured: harder, easier, or no matter for this player. */
export const JUDGEMENTS = ['harder', 'easier', 'no matter'] as const;
export type Judgement = (typeof JUDGEMENTS)[number];

export interface JudgeBars {
  /** Measure indices, both included. */
  from: number;
  to: number;
  /** null takes it back. */
  as: Judgement | null;
}

export const judgeBars: CommandDescription<JudgeBars> = {
  schema: ({ measure, oneOf, orNull }) => ({ from: measure, to: measure, as: orNull(oneOf(JUDGEMENTS)) }),
  apply: (reading, { from, to, as }) => {
    let { judged } = reading;
    for (let k = from; k <= to; k++) judged = as === null ? without(judged, k) : { ...judged, [k]: as };
    return { ...reading, judged };
  },
  words: ({ as }) =>
    as === null ? 'taking back what was said of bars' : as === 'no matter' ? 'leaving a hard place out' : `calling bars ${as}`
};
