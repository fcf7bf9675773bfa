import { analyse } from '../core/analysis/analyse.ts';
import type { Pin } from '../core/analysis/pins.ts';
import { alteredNotes } from '../core/score/accidentals.ts';
import { add, format, sub, ZERO, type Fraction } from '../core/score/fraction.ts';
import type { Note, Part, Score } from '../core/score/model.ts';
import { midi, pitchName } from '../core/score/pitch.ts';
import { positionAt, positionIn, type Position } from '../core/score/position.ts';
import { playedLength } from '../core/score/repeats.ts';
import { keyName } from '../core/analysis/keys.ts';

interface Range {
  from: Position;
  to: Position;
}

/** The score and its facts in the public format `nuvelo-analysis/1`. */
export function analysisJson(score: Score, parts: number[] | null = null, pins: Pin[] = []): object {
  const facts = analyse(score, pins, parts);
  const range = (start: Fraction, last: Fraction): Range => ({ from: positionAt(score, start), to: positionAt(score, last) });
  const total = score.measures.reduce((sum, m) => add(sum, m.length), ZERO);
  return {
    format: 'nuvelo-analysis/1',
    title: score.title,
    composer: score.composer,
    parts: score.parts.filter((p) => !parts || parts.includes(p.index)).map((p) => partJson(score, p)),
    measures: score.measures.map((m) => ({
      measure: m.index,
      number: m.number,
      implicit: m.implicit,
      time: m.time?.text ?? null,
      fifths: m.key.fifths,
      quarters: format(m.length),
      start: format(m.start)
    })),
    totalQuarters: format(total),
    playedQuarters: format(playedLength(score.measures)),
    keys: facts.keys.map((k) => ({
      ...range(k.start, k.last),
      key: k.name,
      ...(k.tonality ? { tonality: k.tonality } : {}),
      confidence: k.confidence,
      ...(k.pinned ? { pinned: true } : {})
    })),
    chords: facts.chords.map((c) => ({
      at: positionAt(score, c.start),
      quarters: format(sub(c.end, c.start)),
      key: keyName(c.key),
      roman: c.roman,
      bass: c.bass,
      applied: c.applied,
      special: c.special,
      ...(c.symbol === undefined ? {} : { symbol: c.symbol }),
      confidence: c.confidence
    })),
    cadences: facts.cadences.map((c) => ({ at: positionAt(score, c.start), type: c.type, key: keyName(c.key), confidence: c.confidence })),
    phrases: facts.phrases.map((p) => ({ ...range(p.start, p.last), confidence: p.confidence })),
    sections: facts.sections.map((s) => ({ label: s.label, ...range(s.start, s.last) })),
    parallels: facts.parallels.map((p) => ({
      a: range(p.a.start, p.a.last),
      b: range(p.b.start, p.b.last),
      transposition: p.transposition,
      shift: format(p.shift),
      differences: p.differences.map((d) => ({ a: positionAt(score, d.a), b: positionAt(score, d.b), what: d.what }))
    })),
    sequences: facts.sequences.map((s) => ({
      ...range(s.start, s.last),
      unitQuarters: format(s.unit),
      units: s.units,
      step: s.step,
      kind: s.kind
    })),
    accidentals: alteredNotes(score).map(({ note, printed }) => ({
      at: positionIn(score.measures[note.measure], note.onset),
      part: score.parts[note.part].id,
      pitch: pitchName(note.pitch!),
      printed
    }))
  };
}

function partJson(score: Score, part: Part): object {
  const own = score.notes.filter((n) => n.part === part.index && !n.cue);
  const sounding = own.filter((n) => !n.rest);
  const pitched = sounding.filter((n): n is Note & { sounding: NonNullable<Note['sounding']> } => n.sounding !== undefined);
  const byHeight = pitched.map((n) => n.sounding).sort((a, b) => midi(a) - midi(b));
  return {
    id: part.id,
    name: part.name,
    staves: part.staves,
    transpose: part.transpose,
    notes: sounding.length,
    graceNotes: sounding.filter((n) => n.grace).length,
    rests: own.filter((n) => n.rest).length,
    lowest: byHeight.length ? pitchName(byHeight[0]) : null,
    highest: byHeight.length ? pitchName(byHeight[byHeight.length - 1]) : null
  };
}
