import type { Study } from '../analysis/study.ts';
import type { MarkingKind } from '../markings/marking-kind.ts';
import type { Marking } from '../markings/marking.ts';
import { STRING_NAMES } from '../markings/kinds/string.ts';
import type { Performance } from '../performance/perform.ts';
import type { Player } from '../players/player.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import { add, format, lte, type Fraction } from '../score/fraction.ts';
import { beatOf } from '../score/position.ts';
import type { Note, Score } from '../score/model.ts';
import { instrumentOf } from '../style/instruments/instrument-of.ts';
import { inSigns } from '../analysis/words.ts';
import { keyAlter } from '../score/accidentals.ts';
import { atStaffStep, pitchName, staffStep } from '../score/pitch.ts';
import { listed } from '../sentences.ts';
import type { SurveyGroup } from '../survey/line.ts';
import { asksOf } from './asks.ts';
import { findingsOf } from './findings.ts';
import { fingerName, stringName } from './left-hand.ts';
import { height, mainAttack, secondsPlayed, silenceBefore, topOf } from './player-line.ts';
import { trillFingers, windChart } from './wind-fingers.ts';
import { techniqueOf, type Technique, type TechniquePin } from './technique.ts';

/** What a search proposes at a note, as a marking that may be written into the part. */
export interface LyingMark {
  kind: MarkingKind;
  value: string;
  note: string;
  start: Fraction;
  staff: number;
  measure: number;
}

/** How a part lies on its instrument, as the rooms show it: plain records. */
export interface HowItLies {
  instrument: string;
  /** What would be written: where the hand or bow does not go on by itself. */
  marks: LyingMark[];
  /** By bar and by what they are of, in the order in which they are read. */
  lines: { measure: number; of: string; text: string }[];
  /** Other ways, with their price. */
  ways: { from: number; to: number; text: string }[];
  findings: { start: Fraction; measure: number; what: string }[];
  /** What the whole piece asks. */
  asks: SurveyGroup;
}

/** What a reading's own markings decide: they are the pins of the search. */
export function pinsOfMarkings(markings: readonly Marking[], open: number, score: Score, part: number): Map<string, TechniquePin> {
  const pins = new Map<string, TechniquePin>();
  const add = (note: string, pin: TechniquePin): void => void pins.set(note, { ...pins.get(note), ...pin });
  for (const m of markings) {
    if (!m.note || m.part !== part) continue;
    if (m.kind === 'bowing') add(m.note, { bow: m.value === 'down-bow' ? 'down' : 'up' });
    else if (m.kind === 'fingering') add(m.note, { finger: m.value });
    else if (m.kind === 'string' && STRING_NAMES.indexOf(m.value) < open) add(m.note, { string: m.value });
    else if (m.kind === 'sticking') add(m.note, { hand: m.value === 'R' ? 'right' : 'left' });
    else if (m.kind === 'hand') add(m.note, { hand: m.value === 'r.h.' ? 'right' : 'left' });
    else if (m.kind === 'breath') {
      // It is drawn behind the note that it is taken from.
      const next = nextNote(score, m.note);
      if (next) add(next.id, { breath: true });
    }
  }
  return pins;
}

/** What begins when a note has ended, or next after it. */
function nextNote(score: Score, id: string): Note | undefined {
  const from = score.notes.find((n) => n.id === id);
  const end = from && add(from.start, from.duration);
  return end && score.notes.find((n) => n.part === from.part && !n.rest && !n.grace && lte(end, n.start));
}

/** What is known beside the reading itself. */
export interface Around {
  /** Whom it is for. */
  player?: Player | null;
  /** How it is played. */
  performance?: Performance | null;
}

/** How the part of a reading lies. */
export function howItLies(study: Study, reading: Reading, { player = null, performance = null }: Around = {}): HowItLies {
  const { score } = study;
  const instrument = instrumentOf(score, score.parts[reading.part], reading.instruments);
  const pins = pinsOfMarkings(reading.markings, instrument.strings?.length ?? 0, score, reading.part);
  for (const pin of pins.values()) if (pin.string) pin.string = stringName(instrument.strings ?? [], STRING_NAMES.indexOf(pin.string));
  const t = techniqueOf(study, {
    part: reading.part,
    instrument: instrument.key,
    period: reading.period,
    schools: styleOf(reading).schools,
    markings: reading.markings,
    tempo: null,
    player,
    seconds: performance && secondsPlayed(score, performance.beats),
    pins
  });
  return {
    instrument: t.instrument.key,
    marks: marksOf(t),
    lines: linesOf(t),
    ways: waysOf(t),
    asks: asksOf(t),
    findings: findingsOf(t).map((f) => ({ start: f.attack.start, measure: f.attack.notes[0].measure, what: f.what }))
  };
}

const mark = (kind: MarkingKind, value: string, n: Note): LyingMark => ({
  kind,
  value,
  note: n.id,
  start: n.start,
  staff: n.staff,
  measure: n.measure
});

/** What an editor would write: the rest goes on by itself. */
function marksOf(t: Technique): LyingMark[] {
  const { attacks } = t.line;
  const marks: LyingMark[] = [];
  t.bow?.strokes.forEach((s, k, all) => {
    const at = mainAttack(t.line, s.from);
    const lifted = k > 0 && silenceBefore(t.line, s.from) > 0;
    // Turning at each stroke needs no sign; where it begins, and where it does not turn, one does.
    if (k === 0 || lifted || s.way === 'hook' || s.way === 'retake' || s.way === 'split' || all[k - 1]?.way === 'retake')
      marks.push(mark('bowing', `${s.direction}-bow`, topOf(attacks[at])));
  });
  if (t.strings) {
    let position = 1;
    t.strings.grips.forEach((grip, k) => {
      const places = grip.flatMap((p, h) => (p && p.finger > 0 ? [{ p, note: attacks[k].notes[h] }] : []));
      const first = places[0];
      if (!first) return;
      const moved = first.p.position !== position;
      for (const { p, note } of places)
        if (moved || p.finger === 4 || p.extended) marks.push(mark('fingering', fingerName(p.finger), note));
      if (moved && first.p.string > 0 && first.p.position > 1) marks.push(mark('string', STRING_NAMES[first.p.string], first.note));
      position = first.p.position;
    });
  }
  for (const { line, fingering } of t.keyboard)
    fingering.grips.forEach((grip, k) => {
      const a = line.attacks[k];
      const outer = fingering.hand === 'right' ? grip.length - 1 : 0;
      const before = fingering.grips[k - 1];
      const old = k ? line.attacks[k - 1] : null;
      const turns = (): boolean => {
        if (!before || !old) return true;
        const [f, g] = fingering.hand === 'right' ? [before.at(-1)!, grip.at(-1)!] : [-before[0], -grip[0]];
        const step = fingering.hand === 'right' ? height(topOf(a)) - height(topOf(old)) : height(a.notes[0]) - height(old.notes[0]);
        return step !== 0 && (g - f) * step <= 0;
      };
      if (k === 0 || silenceBefore(line, k) > REST || turns())
        if (grip[outer]) marks.push(mark('fingering', String(grip[outer]), a.notes[outer]));
    });
  for (const b of t.breath?.breaths ?? [])
    if (silenceBefore(t.line, b.at) <= 0.05 && attacks[b.at - 1]) marks.push(mark('breath', 'breath', topOf(attacks[b.at - 1])));
  t.sticks?.sticks.forEach((sticks, k) => {
    const [s] = sticks;
    const before = t.sticks!.sticks[k - 1]?.[0];
    if (sticks.length === 1 && (s === 'L' || s === 'R') && (k === 0 || s === before || silenceBefore(t.line, k) > REST))
      marks.push(mark('sticking', s, attacks[k].notes[0]));
  });
  return marks;
}

/** Seconds of silence after which a hand begins anew. [M] */
const REST = 0.4;

/** Words by bar. */
function linesOf(t: Technique): HowItLies['lines'] {
  const { attacks, score } = t.line;
  const found = new Map<string, { measure: number; of: string; words: string[] }>();
  const say = (measure: number, of: string, word: string): void => {
    const key = `${measure} ${of}`;
    const line = found.get(key);
    if (line) line.words.push(word);
    else found.set(key, { measure, of, words: [word] });
  };
  const barOf = (k: number): number => attacks[k].notes[0].measure;
  for (const s of t.bow?.strokes ?? []) {
    const way = s.way === 'plain' || s.way === 'lift' ? '' : ` (${WAYS[s.way]})`;
    say(barOf(mainAttack(t.line, s.from)), 'Bow', s.direction + way);
  }
  if (t.strings) {
    const open = t.instrument.strings ?? [];
    let string = -1;
    let position = -1;
    t.strings.grips.forEach((grip, k) => {
      const places = grip.filter((p) => p !== null);
      if (!places.length) return say(barOf(k), 'Left hand', '?');
      const word = places
        .map((p) => {
          const named = p.string !== string || places.length > 1 || k === 0 || barOf(k) !== barOf(k - 1);
          string = p.string;
          return (named ? `${stringName(open, p.string)} ` : '') + fingerName(p.finger);
        })
        .join(' with ');
      const moved = places[0].finger > 0 && places[0].position !== position;
      if (places[0].finger > 0) position = places[0].position;
      say(barOf(k), 'Left hand', moved && (position > 1 || k > 0) ? `${word} (position ${position})` : word);
    });
  }
  for (const { line, fingering } of t.keyboard)
    fingering.grips.forEach((grip, k) =>
      say(line.attacks[k].notes[0].measure, fingering.hand === 'right' ? 'Right hand' : 'Left hand', grip.map((f) => f || '–').join('+'))
    );
  for (const b of t.breath?.breaths ?? []) {
    const note = attacks[b.at].notes[0];
    const beat = format(beatOf(score.measures[note.measure], note.onset));
    say(note.measure, 'Breath', `before beat ${beat} ${b.where}, ${b.kind}, ${b.secondsBefore.toFixed(0)} s after the one before`);
  }
  t.brass?.ways.forEach((w, k) => say(barOf(k), w?.slide ? 'Slide' : 'Valves', w ? String(w.valves ?? w.slide) : '?'));
  // Regular fingerings are known; what is told is what is not regular, and what is awkward.
  t.winds?.ways.forEach((w, k) => {
    const pitch = topOf(attacks[k]).pitch;
    if (w?.alternate && pitch) say(barOf(k), 'Fingers', `${inSigns(pitchName(pitch))} as ${w.keys}`);
  });
  const chart = windChart(t.instrument.key, t.player?.fingerings);
  for (const [k, a] of attacks.entries()) {
    const { pitch, marks } = topOf(a);
    if (!chart || !pitch || !marks?.some((m) => m.name === 'trill-mark')) continue;
    const upper = atStaffStep(staffStep(pitch) + 1, 0);
    const trill = trillFingers(chart, pitch, { ...upper, alter: keyAlter(score.measures[barOf(k)].key, upper.step) });
    if (trill) say(barOf(k), 'Fingers', `trill on ${inSigns(pitchName(pitch))} with ${listed(trill.moving)}`);
  }
  for (const { at, why } of t.winds?.awkward ?? []) {
    const names = [attacks[at - 1], attacks[at]].map((a) => inSigns(pitchName(topOf(a).pitch!)));
    say(barOf(at), 'Fingers', `${names.join(' to ')}: ${listed(why)}`);
  }
  t.sticks?.sticks.forEach((s, k) => say(barOf(k), 'Sticks', s.join('+')));
  for (const m of t.movements) say(barOf(m.at), 'Movements', m.name.replace('-', ' ') + (m.complete ? '' : ' (not complete)'));
  return [...found.values()].map(({ measure, of, words }) => ({
    measure,
    of,
    text: of === 'Breath' || of === 'Movements' || of === 'Fingers' ? words.join('; ') : words.join(' ')
  }));
}

const WAYS = { hook: 'hooked', split: 'the slur in two', retake: 'set anew' };

function waysOf(t: Technique): HowItLies['ways'] {
  const { attacks } = t.line;
  const bar = (k: number): number => attacks[k].notes[0].measure;
  const name = (measure: number): string => t.line.score.measures[measure].number;
  const bows = (t.bow?.alternatives ?? []).map((a) => ({
    from: bar(a.from),
    to: bar(a.to),
    text: `Bow from bar ${name(bar(a.from))}: ${a.strokes
      .slice(0, MOST_TOLD)
      .map((s) => s.direction + (s.way in WAYS ? ` (${WAYS[s.way as keyof typeof WAYS]})` : ''))
      .join(' ')}${a.strokes.length > MOST_TOLD ? ' …' : ''}`
  }));
  const open = t.instrument.strings ?? [];
  const hands = (t.strings?.alternatives ?? []).map((a) => ({
    from: bar(a.from),
    to: bar(a.to),
    text: `Left hand from bar ${name(bar(a.from))}: ${a.grips
      .slice(0, MOST_TOLD)
      .map((g) => g.flatMap((p) => (p ? [`${stringName(open, p.string)}${fingerName(p.finger)}`] : [])).join(' with '))
      .join(' ')}${a.grips.length > MOST_TOLD ? ' …' : ''}`
  }));
  return [...bows, ...hands];
}

/** Strokes and notes of another way that are told, at most. */
const MOST_TOLD = 8;
