import { tuneOf } from '../reading/tune.ts';
import { group } from 'd3-array';
import type { Details } from '../analysis/details.ts';
import type { Facts } from '../analysis/facts.ts';
import type { Study } from '../analysis/study.ts';
import { firstFrom, toTicks, type SoundingScore, type Tone } from '../analysis/sounding-score.ts';
import { toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter, groupingOf, inFullBar, isAdditive, metricLevel } from '../score/meter.ts';
import type { Measure, Note, Score } from '../score/model.ts';
import { unfold, type PlayedMeasure } from '../score/repeats.ts';
import { suggestedTempo } from '../survey/tempo.ts';
import { tempoMarks } from '../score/tempo.ts';
import { instrumentOf, type InstrumentChoices } from '../style/instruments/instrument-of.ts';
import type { Instrument } from '../style/instruments/instrument.ts';

/** Quarters a minute where neither the page nor its words say any; from memory, adjustable. */
export const FALLBACK_TEMPO = 96;

/** A sounding note with what its performance asks about, whatever the reading. */
export interface PlayableTone {
  tone: Tone;
  /** Metrical level of its beginning: 3 bar line … -1 inside a beat. */
  level: number;
  thirdBeat: boolean;
  /** A weak beat of a triple bar on which the harmony changes: it carries weight. */
  newHarmony: boolean;
  /** Follows the leading line of the part that the reading is for. */
  lead: boolean;
  /** It is of the tune, in whatever part or hand; in a score of one part the same as `lead`. */
  front: boolean;
  role: string;
  connecting: boolean;
  /** Semitones above the middle of its phrase. */
  above: number;
  /** 1 inside a printed slur, 2 its last note, 3 the second of a slurred pair; 0 none. */
  slur: 0 | 1 | 2 | 3;
  graces: Note[];
}

/** Bars in the order in which they are played, with how often each measure has been played before its last time. */
export interface PlayedOrder {
  bars: PlayedMeasure[];
  lastPass: number[];
}

function orderOf(bars: PlayedMeasure[]): PlayedOrder {
  const lastPass: number[] = [];
  for (const p of bars) lastPass[p.measure] = p.pass;
  return { bars, lastPass };
}

/** Everything about a score that a performance needs and no reading changes. Built once for a study. */
export interface PlayableScore {
  study: Study;
  score: Score;
  facts: Facts;
  details: Details;
  sounding: SoundingScore;
  part: number;
  tones: PlayableTone[];
  /** Index of the first tone of each measure in `tones`; one more at the end. */
  firstTone: number[];
  /** Tick at which a sounding note ends, ties joined, by id. */
  endOf(note: string): number | undefined;
  unpitched: Note[];
  /** Order of the bars as played, and with repeats left out. */
  played: PlayedOrder;
  playedOnce: PlayedOrder;
  /** Tempi that the page gives, in quarters a minute, by tick. */
  marks: { at: number; tempo: number }[];
  /** Quarters a minute before the first mark. */
  firstTempo: number;
  /** Quarters a minute at a tick, as the page has it. */
  tempoAt(ticks: number): number;
  instruments: Instrument[];
  /** Notes that lean: appoggiaturas and suspensions. */
  leaning: Set<string>;
  /** Place from below of each note in its chord, for notes that have company. */
  chords: Map<string, { place: number; size: number; arpeggio: boolean }>;
}

/** Ids of notes inside printed slurs: within, at the end, second of a pair. */
function slurPlaces(score: Score, byId: ReadonlyMap<string, Note>): Map<string, 1 | 2 | 3> {
  const found = new Map<string, 1 | 2 | 3>();
  const lines = new Map<string, Note[]>();
  for (const n of score.notes) {
    if (n.rest || n.cue || n.grace || n.chord) continue;
    const key = `${n.part}|${n.staff}|${n.voice}`;
    const line = lines.get(key);
    if (line) line.push(n);
    else lines.set(key, [n]);
  }
  const place = new Map<string, [Note[], number]>();
  for (const line of lines.values()) line.forEach((n, k) => place.set(n.id, [line, k]));
  for (const s of score.slurs) {
    if (s.kind !== 'slur') continue;
    const from = place.get(s.from);
    const end = byId.get(s.to);
    if (!from || !end) continue;
    const [line, k] = from;
    let last = k;
    while (last + 1 < line.length && line[last + 1].measure <= end.measure && toNumber(line[last + 1].start) <= toNumber(end.start)) last++;
    for (let i = k; i < last; i++) if (!found.has(line[i].id) || found.get(line[i].id)! > 1) found.set(line[i].id, 1);
    if (last > k && !found.has(line[last].id)) found.set(line[last].id, last === k + 1 ? 3 : 2);
  }
  return found;
}

/** Chords: notes of one voice that begin together. */
function chordPlaces(tones: readonly PlayableTone[]): PlayableScore['chords'] {
  const groups = new Map<string, PlayableTone[]>();
  for (const t of tones) {
    const { note, start } = t.tone;
    const key = `${note.part}|${note.staff}|${note.voice}|${start}`;
    const group = groups.get(key);
    if (group) group.push(t);
    else groups.set(key, [t]);
  }
  const places: PlayableScore['chords'] = new Map();
  for (const group of groups.values()) {
    if (group.length < 2) continue;
    const arpeggio = group.some((t) => t.tone.note.marks?.some((m) => m.group === 'arpeggio') ?? false);
    [...group]
      .sort((a, b) => a.tone.midi - b.tone.midi)
      .forEach((t, place) => places.set(t.tone.note.id, { place, size: group.length, arpeggio }));
  }
  return places;
}

/** Metrical level of an onset; in an additive meter the groups of the bar make its strong beats. */
function levelsByGroup(score: Score): (measure: Measure, onset: Fraction) => number {
  const additive = score.measures.filter(isAdditive);
  const notes = additive.length ? group(score.notes, (n) => n.measure) : new Map<number, Note[]>();
  const groups = new Map(additive.map((m) => [m.index, groupingOf(m, notes.get(m.index) ?? [])]));
  return (measure, onset) => {
    const level = metricLevel(measure, onset);
    const own = groups.get(measure.index);
    if (!own || level === 3 || level < 0) return level;
    const unit = toNumber(inFullBar(measure, onset)) / (4 / measure.time!.unit);
    let at = 0;
    for (const size of own) {
      if (Math.abs(unit - at) < 1e-9) return 2;
      at += size;
    }
    return Math.min(level, 1);
  };
}

/** A score as it is asked about when it is played. @param part the one that leads @param choices instruments that the teacher has corrected */
export function playableScore(study: Study, part: number, choices: InstrumentChoices = {}): PlayableScore {
  const { score, facts, details, sounding } = study;
  const line = study.soundingPart(part).melody;
  const byId = new Map(score.notes.map((n) => [n.id, n]));
  const slurs = slurPlaces(score, byId);
  const roles = new Map(details.roles.map((r) => [r.note, r]));
  const voices = new Map<string, Set<string>>();
  for (const t of line) {
    const key = `${t.start}`;
    const set = voices.get(key);
    const voice = `${t.note.part}|${t.note.staff}|${t.note.voice}`;
    if (set) set.add(voice);
    else voices.set(key, new Set([voice]));
  }
  const graces = new Map<string, Note[]>();
  const waiting = new Map<string, Note[]>();
  for (const n of score.notes) {
    if (n.cue || n.rest) continue;
    const key = `${n.part}|${n.staff}|${n.voice}`;
    if (n.grace) {
      const list = waiting.get(key);
      if (list) list.push(n);
      else waiting.set(key, [n]);
    } else if (!n.chord) {
      const list = waiting.get(key);
      if (list) {
        graces.set(n.id, list);
        waiting.delete(key);
      }
    }
  }
  const middles = facts.phrases.map((p) => {
    const inside = line.slice(firstFrom(line, toTicks(sounding, p.start)), firstFrom(line, toTicks(sounding, p.end)));
    return { end: toTicks(sounding, p.end), middle: inside.length ? inside.reduce((s, t) => s + t.midi, 0) / inside.length : 60 };
  });
  // Bars in which the lower staff has the tune, and moments at which the harmony changes.
  const sungBelow = new Set(details.gestures.filter((g) => g.kind === 'melody below').map((g) => g.measure));
  const changes = new Set(facts.chords.slice(1).map((c) => toTicks(sounding, c.start)));
  const levels = levelsByGroup(score);
  const tune = score.parts.length > 1 ? tuneOf(study) : new Set<string>();
  let phrase = 0;
  const tones: PlayableTone[] = [];
  for (const tone of sounding.tones) {
    const { note } = tone;
    if (note.grace) continue;
    const measure = score.measures[note.measure];
    while (phrase + 1 < middles.length && tone.start >= middles[phrase].end) phrase++;
    const level = levels(measure, note.onset);
    const role = roles.get(note.id);
    const below = sungBelow.has(note.measure);
    const lead =
      note.part === part &&
      (below ? note.staff === 2 : (voices.get(`${tone.start}`)?.has(`${note.part}|${note.staff}|${note.voice}`) ?? false));
    const count = measure.time?.groups.length === 1 ? measure.time.groups[0] : 0;
    tones.push({
      tone,
      level,
      newHarmony: count === 3 && level === 1 && changes.has(tone.start),
      thirdBeat: count === 3 && level === 1 && toNumber(note.onset) / toNumber(beatOfMeter(measure).beat) === 2,
      lead,
      front: score.parts.length > 1 ? tune.has(note.id) || (lead && below) : lead,
      role: role?.role ?? 'chord tone',
      connecting: role?.rank === 'connecting',
      above: lead ? tone.midi - (middles[phrase]?.middle ?? tone.midi) : 0,
      slur: slurs.get(note.id) ?? 0,
      graces: graces.get(note.id) ?? []
    });
  }
  const firstTone = new Array<number>(score.measures.length + 1).fill(0);
  for (const t of tones) firstTone[t.tone.note.measure + 1]++;
  for (let m = 1; m < firstTone.length; m++) firstTone[m] += firstTone[m - 1];
  tones.sort((a, b) => a.tone.note.measure - b.tone.note.measure);
  const ends = new Map(tones.map((t) => [t.tone.note.id, t.tone.end]));
  const word = suggestedTempo(score);
  const firstTempo = word ? (word.low + word.high) / 2 : FALLBACK_TEMPO;
  const marks = tempoMarks(score).map((m) => ({ at: toTicks(sounding, m.start), tempo: (m.low + m.high) / 2 }));
  return {
    study,
    score,
    facts,
    details,
    sounding,
    part,
    tones,
    firstTone,
    endOf: (note) => ends.get(note),
    unpitched: score.notes.filter((n) => n.unpitched && !n.rest && !n.cue && !n.grace),
    played: orderOf(unfold(score.measures)),
    playedOnce: orderOf(unfold(score.measures, false)),
    marks,
    firstTempo,
    tempoAt: (ticks) => marks.findLast((m) => m.at <= ticks)?.tempo ?? firstTempo,
    chords: chordPlaces(tones),
    leaning: new Set(details.roles.flatMap((r) => (r.role === 'appoggiatura' || r.role === 'suspension' ? [r.note] : []))),
    instruments: score.parts.map((p) => instrumentOf(score, p, choices))
  };
}

/** Length of the beat in ticks. */
export const beatTicks = (playable: PlayableScore, measure: Measure): number =>
  Math.max(1, Math.round(toNumber(beatOfMeter(measure).beat) * playable.sounding.ticksPerQuarter));
