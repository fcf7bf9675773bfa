import { studyOf } from '../../../src/core/analysis/study.ts';
import { add, eq, ZERO, type Fraction } from '../../../src/core/score/fraction.ts';
import type { Note, Score } from '../../../src/core/score/model.ts';
import { readMusicXml } from '../../../src/core/score/musicxml/read.ts';
import type { Drill, DrillContext } from '../../../src/core/rehearsal/context.ts';
import { drillContext, drillsOf } from '../../../src/core/rehearsal/drills.ts';
import type { DrillKind } from '../../../src/core/style/drills.ts';
import { techniqueOf } from '../../../src/core/technique/technique.ts';
import { abc } from '../helpers.ts';

export function contextOf(score: Score, part = 0): DrillContext {
  const study = studyOf(score);
  const technique = techniqueOf(study, { part, instrument: null, period: 'classical', schools: {}, tempo: null, pins: new Map() });
  return drillContext(study, technique, part);
}

/** All drills of a kind that a score gives reason for. */
export const drillsIn = (score: Score, kind: DrillKind | null = null): Drill[] =>
  drillsOf(contextOf(score), 0, score.measures.length - 1, kind);

/** The first drill of a kind in a tune, and its score; null where the tune gives no reason. */
export function made(text: string, kind: DrillKind): { drill: Drill; score: Score; sounding: Note[] } | null {
  const [drill] = drillsIn(abc(text), kind);
  if (!drill) return null;
  const score = readMusicXml(drill.document);
  return { drill, score, sounding: score.notes.filter((n) => !n.rest && !n.grace) };
}

/** Bars whose notes do not fill them, by number: each voice of each bar adds up to the length of the bar. */
export function unfilled(score: Score): string[] {
  return score.measures.flatMap((m) => {
    const own = score.notes.filter((n) => n.measure === m.index && !n.chord && !n.grace);
    const sums = new Map<string, Fraction>();
    for (const n of own) sums.set(n.voice, add(sums.get(n.voice) ?? ZERO, n.duration));
    const full = m.time?.quarters ?? m.length;
    return [...sums.values()].every((sum) => eq(sum, full)) && eq(m.length, full) ? [] : [m.number];
  });
}
