import { toTicks, type SoundingScore } from '../analysis/sounding-score.ts';
import type { Reading } from '../reading/reading.ts';
import type { EffectKey } from '../style/effects.ts';
import { PROFILES } from '../style/profiles.ts';
import type { SchoolAnswers, SchoolKey } from '../style/schools.ts';

/** How much of each effect holds at a moment, and how the questions of school are answered there. */
export interface Settings {
  /** The amount is the same everywhere. */
  even: boolean;
  amount(effect: EffectKey, ticks: number): number;
  school(key: SchoolKey, ticks: number): string | undefined;
}

/** A later range outweighs an earlier one, a range the whole piece. */
export function settingsOf(sounding: SoundingScore, reading: Reading): Settings {
  const amounts = reading.localAmounts.map((a) => ({ ...a, from: toTicks(sounding, a.from), to: toTicks(sounding, a.to) }));
  const answers = reading.localAnswers.map((a) => ({ ...a, from: toTicks(sounding, a.from), to: toTicks(sounding, a.to) }));
  const whole: SchoolAnswers = { ...PROFILES[reading.period].schools };
  for (const key of Object.keys(reading.schools) as SchoolKey[]) whole[key] = reading.schools[key]!.option;
  const everywhere = (effect: EffectKey): number => reading.amounts[effect] ?? 1;
  return {
    even: amounts.length === 0,
    amount: amounts.length
      ? (effect, ticks) => amounts.findLast((a) => a.effect === effect && ticks >= a.from && ticks < a.to)?.amount ?? everywhere(effect)
      : everywhere,
    school: answers.length
      ? (key, ticks) => answers.findLast((a) => a.key === key && ticks >= a.from && ticks < a.to)?.option ?? whole[key]
      : (key) => whole[key]
  };
}

/** Everything off: the page to the letter. */
export const LITERAL: Settings = { even: true, amount: () => 0, school: () => undefined };
