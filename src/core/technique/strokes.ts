import { LIFTED_IN, STROKE_RUN, STROKE_SPEEDS, type StrokeKey } from '../style/strokes.ts';
import type { Period } from '../style/profiles.ts';
import type { Bowing } from './bow.ts';
import type { Attack, PlayerLine } from './player-line.ts';

/** A stretch of attacks that are bowed in one manner. */
export interface StrokeRun {
  from: number;
  to: number;
  stroke: StrokeKey;
}

const marked = (a: Attack, name: RegExp): boolean => a.notes.some((n) => n.marks?.some((m) => name.test(m.name)));

/**
 * Kinds of stroke by mark, speed and period. Handbook 12.6.
 * @param loud whether an attack is loud
 */
export function strokeRuns(line: PlayerLine, bows: Bowing, period: Period, loud: (at: number) => boolean): StrokeRun[] {
  const { attacks } = line;
  const alone = new Set(bows.strokes.filter((s) => s.from === s.to).map((s) => s.from));
  const retaken = new Set(bows.strokes.filter((s) => s.way === 'retake' && s.direction === 'down' && s.from === s.to).map((s) => s.from));
  const kind = (k: number): StrokeKey | null => {
    const a = attacks[k];
    if (a.grace) return null;
    if (a.notes.some((n) => n.spans?.some((s) => s.kind === 'tremolo') || n.marks?.some((m) => m.name === 'tremolo'))) return 'tremolo';
    const next = attacks[k + 1] ?? a;
    const speed = 1 / Math.max(0.03, Math.abs((next === a ? a.to : next.from) - a.from));
    const dots = marked(a, /^staccato$|spiccato|staccatissimo/);
    if (!alone.has(k)) return dots ? (speed > STROKE_SPEEDS.stopped ? 'slurred-staccato' : 'portato') : null;
    if (retaken.has(k)) return 'downs-again';
    if (!dots) return speed >= STROKE_SPEEDS.thrown && !loud(k) ? 'bouncing' : 'on-the-string';
    if (speed >= STROKE_SPEEDS.thrown) return 'bouncing';
    if (LIFTED_IN.includes(period)) return 'lifted';
    return speed < STROKE_SPEEDS.stopped && loud(k) ? 'stopped' : 'thrown';
  };
  const runs: StrokeRun[] = [];
  for (let k = 0; k < attacks.length; k++) {
    if (attacks[k].grace) continue;
    const stroke = kind(k);
    const last = runs.at(-1);
    if (!stroke) continue;
    if (last && last.stroke === stroke && last.to >= k - 2) last.to = k;
    else runs.push({ from: k, to: k, stroke });
  }
  return runs.filter((r) => r.to - r.from + 1 >= STROKE_RUN);
}
