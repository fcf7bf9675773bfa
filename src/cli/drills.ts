import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { studyOf } from '../core/analysis/study.ts';
import { positionIn, type Position } from '../core/score/position.ts';
import type { Score } from '../core/score/model.ts';
import { EMPTY_READING } from '../core/reading/reading.ts';
import { PART_WORDS } from '../core/rehearsal/difficulty.ts';
import { drillContext, drillsOf } from '../core/rehearsal/drills.ts';
import { DRILL_KINDS, type DrillKind } from '../core/style/drills.ts';
import { listed } from '../core/sentences.ts';
import { techniqueOf } from '../core/technique/technique.ts';
import { CallError } from './call-error.ts';

/** @throws CallError naming the kinds that there are */
export function drillKind(name: string | undefined): DrillKind | null {
  if (name === undefined) return null;
  const kind = DRILL_KINDS.find((k) => k === name);
  if (!kind) throw new CallError(`there is no drill ${name}; the kinds are ${DRILL_KINDS.join(', ')}`);
  return kind;
}

/** Index of the bar with a printed number. @throws CallError where there is none */
export function barNumbered(score: Score, number: string | undefined, otherwise: number): number {
  if (number === undefined) return otherwise;
  const found = score.measures.find((m) => m.number === number);
  if (!found)
    throw new CallError(`there is no bar ${number}; the bars are ${score.measures[0].number} to ${score.measures.at(-1)!.number}`);
  return found.index;
}

export interface DrillsCall {
  part: number;
  instrument: string | null;
  from: number;
  to: number;
  kind: DrillKind | null;
  out: string;
}

const round = (x: number): number => Number(x.toFixed(3));

/** Writes each drill into a folder. @returns what is told of them, in the public format `nuvelo-drills/1` */
export function writeDrills(score: Score, { part, instrument, from, to, kind, out }: DrillsCall): object {
  const study = studyOf(score);
  const { period } = EMPTY_READING;
  const technique = techniqueOf(study, { part, instrument, period, schools: {}, tempo: null, pins: new Map() });
  const context = drillContext(study, technique, part);
  const { difficulty, spots } = context;
  const drills = drillsOf(context, from, to, kind);
  const first = (measure: number): Position => positionIn(score.measures[measure], { n: 0, d: 1 });
  /** Where the last note of a bar begins. */
  const last = (measure: number): Position => {
    const notes = score.notes.filter((n) => n.part === part && n.measure === measure && !n.grace);
    const end = notes.reduce((a, n) => (n.onset.n * a.d > a.n * n.onset.d ? n.onset : a), { n: 0, d: 1 });
    return positionIn(score.measures[measure], end);
  };
  mkdirSync(out, { recursive: true });
  const told = drills.map((d, k) => {
    const file = `${String(k + 1).padStart(2, '0')}-${d.kind}.musicxml`;
    writeFileSync(join(out, file), d.document);
    return { file, kind: d.kind, from: first(d.from), to: last(d.to), because: d.because, how: d.how, tempo: d.tempo };
  });
  return {
    format: 'nuvelo-drills/1',
    difficulty: difficulty.map(({ measure, value, parts }) => ({
      measure,
      number: score.measures[measure].number,
      value: round(value),
      parts: Object.fromEntries(Object.entries(parts).map(([name, part]) => [name, round(part)]))
    })),
    hotSpots: spots.map((s) => ({ from: first(s.from), to: last(s.to), why: listed(s.why.map((w) => PART_WORDS[w])) })),
    drills: told
  };
}
