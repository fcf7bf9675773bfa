import { ASSUMED_TEMPO, LOUD_STEP } from '../style/survey-weights.ts';
import { toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { midi } from '../score/pitch.ts';
import { measureAt } from '../score/position.ts';
import { tempoInForce } from '../score/tempo.ts';
import { CAUTIONS, LONG_WITHOUT_REST_S, WIDE_STRETCH } from '../style/cautions.ts';
import { dynamicStep } from '../style/dynamics.ts';
import { instrumentOf, type InstrumentChoices } from '../style/instruments/instrument-of.ts';
import { longestWithoutRest } from './care.ts';
import { GroupBuilder, type SurveyGroup } from './line.ts';
import { pitchedNotes } from './range.ts';

/** Usual cautions where endurance, stretches or loudness come up; handbook 11. */
export function cautions(score: Score, instruments: InstrumentChoices): SurveyGroup {
  const group = new GroupBuilder('Care for the player');
  for (const part of score.parts) {
    const { family, range } = instrumentOf(score, part, instruments);
    const notes = pitchedNotes(score, part);
    const high = family === 'brass' && range ? notes.filter((n) => midi(n.sounding) >= midi(range.highFrom)) : [];
    if (high.length)
      group.add(
        'High for brass',
        CAUTIONS.loudAndHigh,
        high.map((n) => n.measure)
      );
    if (family === 'keyboard') {
      const wide = wideChords(notes);
      if (wide.length) group.add('More than a ninth under one hand', CAUTIONS.stretch, wide);
    }
    const stretch = family === 'keyboard' ? null : longestWithoutRest(score, part.index);
    if (stretch) {
      const tempo = tempoInForce(score, stretch.start) ?? ASSUMED_TEMPO;
      const seconds = ((toNumber(stretch.end) - toNumber(stretch.start)) * 60) / tempo;
      if (seconds >= LONG_WITHOUT_REST_S)
        group.add('Long without a rest', `about ${Math.round(seconds)} s. ${CAUTIONS.endurance}`, [measureAt(score, stretch.start).index]);
    }
  }
  const loud = score.directions.filter((d) => d.kind === 'dynamic' && (dynamicStep(d.value) ?? 0) > LOUD_STEP);
  if (loud.length)
    group.add(
      'Loud',
      CAUTIONS.hearing,
      loud.map((d) => d.measure)
    );
  group.add('Always', CAUTIONS.always);
  return group.group;
}

/** Measures in which one staff's chord of one voice spans more than a ninth. */
function wideChords(notes: ReturnType<typeof pitchedNotes>): number[] {
  const bounds = new Map<string, { low: number; high: number; measure: number }>();
  for (const n of notes) {
    if (n.grace || n.marks?.some((m) => m.group === 'arpeggio')) continue;
    const key = `${n.start.n}/${n.start.d}|${n.staff}|${n.voice}`;
    const height = midi(n.sounding);
    const b = bounds.get(key);
    if (!b) bounds.set(key, { low: height, high: height, measure: n.measure });
    else {
      b.low = Math.min(b.low, height);
      b.high = Math.max(b.high, height);
    }
  }
  return [...bounds.values()].filter((b) => b.high - b.low >= WIDE_STRETCH).map((b) => b.measure);
}
