import { CONFIDENCE } from '../style/confidence-weights.ts';

type Kind = 'chord' | 'key' | 'cadence' | 'phrase';

/** Signs that speak for a fact of a kind, in the names of confidence-weights.ts; yes counts 1. */
type Signs<K extends Kind> = Record<Exclude<keyof (typeof CONFIDENCE)[K], 'constant'>, number | boolean>;

export const sigmoid = (x: number): number => 1 / (1 + Math.exp(-x));

/** How likely a fact is to be right, 0 to 1 in hundredths: of those with 0.8 about eight in ten are. */
export function confidenceOf<K extends Kind>(kind: K, signs: Signs<K>): number {
  const C = CONFIDENCE;
  const weights: Record<string, number> = C[kind];
  let sum = weights.constant;
  for (const [name, value] of Object.entries<number | boolean>(signs)) {
    const x = Number(value);
    sum += weights[name] * (name === 'margin' ? Math.max(-C.mostMargin, Math.min(C.mostMargin, x)) : x);
  }
  return Math.round(100 * Math.max(C.least, Math.min(C.most, sigmoid(sum)))) / 100;
}

export const SURENESS = ['sure', 'likely', 'doubtful'] as const;
export type Sureness = (typeof SURENESS)[number];

/** A confidence in a word. */
export const sureness = (confidence: number): Sureness =>
  confidence >= CONFIDENCE.sure ? 'sure' : confidence >= CONFIDENCE.likely ? 'likely' : 'doubtful';
