import { clock } from '../score/tempo.ts';
import { NOTICED } from '../style/performance-weights.ts';
import { effectByKey } from '../style/effects.ts';
import type { Account, LoudnessAccount, Performance, Share } from './perform.ts';

/** Whether a displacement of so many seconds is noticed in a beat of so many. Friberg & Sundberg 1995; handbook 1.9. */
export const isNoticed = (seconds: number, beat: number): boolean =>
  Math.abs(seconds) >= (beat < NOTICED.shortBeat ? NOTICED.seconds : NOTICED.share * beat);

const signed = (value: number, digits: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)}`;
const nameOf = (share: Share): string => effectByKey(share.effect)?.name ?? share.effect;

/** Shares that are worth a word, the largest first. */
const told = (shares: readonly Share[], least: number): Share[] =>
  shares.filter((s) => Math.abs(s.amount) >= least).sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));

/** "2.31 s, literal 2.00: phrase end +0.08, cadence +0.23" */
export function explainTime(account: Account, beat: number): string {
  const parts = told(account.shares, 0.005).map((s) => `${nameOf(s)} ${signed(s.amount, 2)}`);
  const difference = account.planned - account.literal;
  const heard = !difference || isNoticed(difference, beat) ? '' : '; too little to be heard';
  return `${account.planned.toFixed(2)} s, literal ${account.literal.toFixed(2)}${parts.length ? `: ${parts.join(', ')}` : ''}${heard}`;
}

/** "+2.3 dB, marks alone 0.0: dynamic plan +2.5, tension −0.2" */
export function explainLoudness(account: LoudnessAccount): string {
  if (account.planned === null || account.literal === null) return 'silent';
  const parts = told(account.shares, 0.05).map((s) => `${nameOf(s)} ${signed(s.amount, 1)}`);
  return `${signed(account.planned, 1)} dB, marks alone ${signed(account.literal, 1)}${parts.length ? `: ${parts.join(', ')}` : ''}`;
}

/** A stretch of the piece as it is played: how long, and how much time is given and taken. */
export interface Stretch {
  name: string;
  literal: number;
  planned: number;
  given: number;
  taken: number;
}

/** The whole performance and its sections. @param sections by first measure index, with their names */
export function wholeOf(performance: Performance, sections: readonly { measure: number; name: string }[]) {
  const stretch = (name: string, bars: readonly Account[]): Stretch => {
    const shares = bars.flatMap((b) => b.shares);
    return {
      name,
      literal: bars.reduce((s, b) => s + b.literal, 0),
      planned: bars.reduce((s, b) => s + b.planned, 0),
      given: shares.reduce((s, x) => s + Math.max(0, x.amount), 0),
      taken: shares.reduce((s, x) => s + Math.min(0, x.amount), 0)
    };
  };
  const of = (measure: number): number => sections.findLastIndex((x) => x.measure <= measure);
  const groups: { section: number; pass: number; bars: Account[] }[] = [];
  for (const bar of performance.bars) {
    const section = of(bar.measure);
    const last = groups.at(-1);
    if (last && last.section === section && last.pass === bar.pass) last.bars.push(bar);
    else groups.push({ section, pass: bar.pass, bars: [bar] });
  }
  const byChange = performance.bars.filter((b) => b.literal > 0).sort((a, b) => a.planned / a.literal - b.planned / b.literal);
  return {
    whole: stretch('the whole', performance.bars),
    sections: groups.map((g) => stretch(`${sections[g.section]?.name ?? 'beginning'}${g.pass ? `, time ${g.pass + 1}` : ''}`, g.bars)),
    quickest: byChange[0] ?? null,
    broadest: byChange.at(-1) ?? null,
    says: `${clock(performance.length)}, to the letter ${clock(performance.literalLength)}`
  };
}
