import { neighbourOf } from '../analysis/neighbours.ts';
import { soundOf } from '../markings/describe.ts';
import type { Reading } from '../reading/reading.ts';
import { levelDb, levelOf, type DynamicPlan } from '../reading/dynamic-plan.ts';
import { frac, toNumber } from '../score/fraction.ts';
import { midi, transpose } from '../score/pitch.ts';
import type { EffectKey } from '../style/effects.ts';
import { PLAYER_WORDS } from '../style/player-words.ts';
import { can } from '../style/instruments/instrument.ts';
import { fittingOssias, ossiaScore, type Ossia } from '../reading/ossia.ts';
import { PAIR_SPREAD, PAUSES, SHARES, SPREAD } from '../style/performance-weights.ts';
import { LITERAL, settingsOf, type Settings } from './settings.ts';
import { toTicks } from '../analysis/sounding-score.ts';
import { NotesAsRead } from './as-read.ts';
import { bendsOf, bent, type Bend } from './bends.ts';
import { tempoSegments } from './tempo-segments.ts';
import { clockOf, secondsInMeasure, type Clock } from './clock.ts';
import { Inflections, turnsOf, type Turn } from './inflections.ts';
import { lengthMarks, lengthOf } from './lengths.ts';
import { LOUDNESS_EFFECTS, loudnessMarks, loudnessOf } from './loudness.ts';
import { placingOf, realise, type OrnamentSchool, type Realisation } from './ornaments.ts';
import { FALLBACK_TEMPO, type PlayableTone, type PlayableScore, type PlayedOrder } from './playable-score.ts';
import { cutPoints, NO_ACTS, timeActs, timeShares, type TimeActs } from './time-effects.ts';

/** One sounding note of a performance. Seconds from the beginning; decibels relative to mezzo forte. */
export interface PlayedNote {
  /** Id of the written note. */
  note: string;
  /** Index of the bar among the bars as played. */
  bar: number;
  part: number;
  staff: number;
  /** MIDI number; null for instruments without pitch. */
  midi: number | null;
  onset: number;
  end: number;
  db: number;
  /** Loudness at its end, for instruments that can shape a held note. */
  dbEnd: number;
  /** Levels in between, evenly spaced, where it swells and fades inside. */
  inside?: number[];
  /** Where its pitch turns: seconds from its onset, semitones from its own; straight between them, held after the last. */
  turns?: Turn[];
  lead: boolean;
  /** A note that the page only hints at: small notes, trills. */
  ornament?: true;
}

export interface Share {
  effect: EffectKey;
  /** Seconds or decibels. */
  amount: number;
}

/** A bar or beat as it is played, against the page. */
export interface Account {
  /** Measure index, and how often it has been played before. */
  measure: number;
  pass: number;
  /** Number of the beat from 0; -1 for a whole bar. */
  beat: number;
  start: number;
  /** Written length in quarters. */
  quarters: number;
  literal: number;
  planned: number;
  /** What makes the difference; sums to planned − literal. */
  shares: Share[];
}

export interface LoudnessAccount {
  measure: number;
  pass: number;
  /** Means over the notes of the leading line, in decibels; null where it rests. */
  literal: number | null;
  planned: number | null;
  shares: Share[];
  /** Mean share of their values that the notes sound. */
  sounding: number | null;
}

/** A reading (or the bare page) as timed notes, with the reasons of every difference. */
export interface Performance {
  notes: PlayedNote[];
  bars: Account[];
  beats: Account[];
  loudness: LoudnessAccount[];
  /** Seconds in all. */
  length: number;
  literalLength: number;
  /** Key of each part's instrument. */
  instruments: string[];
}

const NONE: Share[] = [];

/** Effects whose share of the whole is worth a line: more than a tenth of a millisecond, or of a hundredth decibel. */
const TOLD = 1e-4;

/**
 * Plays a score: with a reading's effects, or literally when all are off.
 * @param literal the page to the letter: marks of tempo and level, written values, nothing else
 * @param plan the dynamic plan of the reading, when it is known already
 */
export function perform(playable: PlayableScore, reading: Reading, literal = false, plan: DynamicPlan | null = null): Performance {
  const { sounding } = playable;
  const settings = literal ? LITERAL : settingsOf(sounding, reading);
  const acts = literal ? NO_ACTS : timeActs(playable, reading);
  const segments = tempoSegments(playable, cutPoints(acts));
  const clock = clockOf(playable, segments, literal ? [] : timeShares(playable, reading, segments, acts), settings);
  const order = settings.school('repeats', 0) === 'omit' ? playable.playedOnce : playable.played;
  const bars = barAccounts(playable, clock, order);
  const player = new Player(playable, reading, settings, clock, order, bars, acts, plan);
  const notes = player.notes();
  const last = bars[bars.length - 1];
  return {
    notes,
    bars,
    beats: beatAccounts(playable, clock, order, bars),
    loudness: player.loudness,
    length: last ? last.start + last.planned : 0,
    literalLength: bars.reduce((s, b) => s + b.literal, 0),
    instruments: playable.instruments.map((i) => i.key)
  };
}

type Sums = Pick<Account, 'quarters' | 'literal' | 'planned' | 'shares'>;

/** Sums of a stretch of cells: literal, planned, and what each effect adds. */
function account(playable: PlayableScore, clock: Clock, from: number, to: number, last: boolean): Sums {
  const { segments } = clock;
  let literal = 0;
  for (let c = from; c < to; c++) literal += segments.literal[c];
  let planned = literal;
  let shares = NONE;
  for (const s of clock.shares) {
    const values = last ? s.last : s.usual;
    let sum = 0;
    for (let c = from; c < to; c++) sum += values[c];
    if (sum === 0) continue;
    planned += sum;
    if (shares === NONE) shares = [];
    shares.push({ effect: s.effect, amount: sum });
  }
  const quarters = to > from ? (segments.to[to - 1] - segments.from[from]) / playable.sounding.ticksPerQuarter : 0;
  return { quarters, literal, planned, shares };
}

function barAccounts(playable: PlayableScore, clock: Clock, { bars, lastPass }: PlayedOrder): Account[] {
  const { first } = clock.segments;
  const known = new Map<string, Sums>();
  let start = 0;
  return bars.map(({ measure, pass }) => {
    const last = pass === lastPass[measure];
    const key = `${measure}|${last}`;
    let sums = known.get(key);
    if (!sums) known.set(key, (sums = account(playable, clock, first[measure], first[measure + 1], last)));
    const bar = { measure, pass, beat: -1, start, ...sums };
    start += bar.planned;
    return bar;
  });
}

function beatAccounts(playable: PlayableScore, clock: Clock, order: PlayedOrder, bars: readonly Account[]): Account[] {
  const { first, beat } = clock.segments;
  const known = new Map<string, { beat: number; sums: Sums }[]>();
  const beatsOf = (measure: number, last: boolean) => {
    const key = `${measure}|${last}`;
    const before = known.get(key);
    if (before) return before;
    const found: { beat: number; sums: Sums }[] = [];
    for (let c = first[measure]; c < first[measure + 1];) {
      let end = c + 1;
      while (end < first[measure + 1] && beat[end] === beat[c]) end++;
      found.push({ beat: beat[c], sums: account(playable, clock, c, end, last) });
      c = end;
    }
    known.set(key, found);
    return found;
  };
  const result: Account[] = [];
  order.bars.forEach(({ measure, pass }, k) => {
    let { start } = bars[k];
    for (const { beat: number, sums } of beatsOf(measure, pass === order.lastPass[measure])) {
      result.push({ measure, pass, beat: number, start, ...sums });
      start += sums.planned;
    }
  });
  return result;
}

/** Nearly sorted already: bars come in order, and few notes of one begin before the last of the one before. */
function inOrder(notes: PlayedNote[]): PlayedNote[] {
  for (let k = 1; k < notes.length; k++) if (notes[k].onset < notes[k - 1].onset) return notes.sort((a, b) => a.onset - b.onset);
  return notes;
}

/** Makes the notes of one performance. */
class Player {
  readonly loudness: LoudnessAccount[] = [];
  private readonly bends: Bend[][];
  private readonly marks;
  private readonly loud;
  /** Ticks at which a pause opens. */
  private readonly opens: ReadonlySet<number>;
  private readonly words = new Map<string, string[]>();
  private readonly written = new Map<string, Realisation | null>();
  private readonly asRead: NotesAsRead;
  private readonly inflections: Inflections;
  /** Stretches through which notes sound on, in ticks. */
  private readonly sustained: { part: number; from: number; to: number }[];

  constructor(
    private readonly playable: PlayableScore,
    private readonly reading: Reading,
    private readonly settings: Settings,
    private readonly clock: Clock,
    private readonly order: PlayedOrder,
    private readonly bars: readonly Account[],
    { pauses, tempi }: TimeActs,
    plan: DynamicPlan | null
  ) {
    const tempoAt = (ticks: number): number => (tempi.findLast((t) => t.at <= ticks) ?? { tempo: playable.tempoAt(ticks) }).tempo;
    this.bends = playable.score.parts.map((p) => bendsOf(playable, settings, p.index, tempoAt));
    this.marks = lengthMarks(playable, reading, pauses);
    this.opens = new Set(pauses.map((p) => p.at));
    this.loud = loudnessMarks(playable, reading, settings, plan);
    // The page to the letter has nobody's emendations.
    const changing = settings === LITERAL ? [] : reading.markings;
    this.asRead = new NotesAsRead(changing);
    this.inflections = new Inflections(changing);
    this.sustained = changing.flatMap((m) =>
      soundOf(m).sustains && m.end
        ? [{ part: m.part, from: toTicks(playable.sounding, m.start), to: toTicks(playable.sounding, m.end) }]
        : []
    );
    for (const m of reading.markings) {
      const { words } = soundOf(m);
      if (words && m.note) this.words.set(m.note, [...(this.words.get(m.note) ?? []), words]);
    }
  }

  notes(): PlayedNote[] {
    const notes: PlayedNote[] = [];
    const ossias = this.settings === LITERAL ? [] : fittingOssias(this.playable.score, this.reading.ossias).filter((o) => o.played);
    const loud = { literal: 0, shares: new Float64Array(LOUDNESS_EFFECTS.length), swell: 0 };
    this.order.bars.forEach(({ measure, pass }, bar) => {
      const sums = new Float64Array(LOUDNESS_EFFECTS.length);
      let literal = 0;
      let sounding = 0;
      let count = 0;
      const instead = ossias.filter((o) => measure >= o.from && measure <= o.to);
      const levels: { at: number; db: number }[] = [];
      for (let k = this.playable.firstTone[measure]; k < this.playable.firstTone[measure + 1]; k++) {
        const t = this.playable.tones[k];
        loudnessOf(this.playable, t, this.loud, this.settings, this.reading, pass, loud);
        const { share } = lengthOf(this.playable, t, this.marks, this.settings);
        let db = loud.literal;
        for (const s of loud.shares) db += s;
        const { note } = t.tone;
        if (instead.some((o) => o.part === note.part && o.staff === note.staff)) levels.push({ at: t.tone.start, db });
        else this.play(notes, t, bar, db, loud.swell, share);
        if (!t.lead) continue;
        count++;
        literal += loud.literal;
        sounding += share;
        for (let i = 0; i < sums.length; i++) sums[i] += loud.shares[i];
      }
      for (const o of instead) this.playOssia(notes, o, bar, levels);
      const shares = [...sums].flatMap((s, i) =>
        Math.abs(s) > TOLD ? [{ effect: LOUDNESS_EFFECTS[i] as EffectKey, amount: s / count }] : []
      );
      this.loudness.push({
        measure,
        pass,
        literal: count ? literal / count : null,
        planned: count ? (literal + sums.reduce((a, b) => a + b, 0)) / count : null,
        shares,
        sounding: count ? sounding / count : null
      });
    });
    for (const n of this.playable.unpitched) this.unpitched(notes, n);
    return inOrder(notes);
  }

  /** The notes of an ossia in one bar, as loud as what it stands for. */
  private playOssia(notes: PlayedNote[], ossia: Ossia, bar: number, levels: readonly { at: number; db: number }[]): void {
    const { sounding, score } = this.playable;
    const { measure } = this.order.bars[bar];
    const own = ossiaScore(ossia);
    const tpq = sounding.ticksPerQuarter;
    const tied = new Map<number, PlayedNote>();
    for (const n of own.notes) {
      if (n.measure !== measure - ossia.from || n.rest || !n.pitch || n.grace) continue;
      const from = sounding.measureStarts[measure] + toNumber(n.onset) * tpq;
      const to = from + toNumber(n.duration) * tpq;
      const height = midi(transpose(n.pitch, score.parts[ossia.part].transpose));
      const onset = this.seconds(bar, from, ossia.part, true);
      const full = this.seconds(bar, to, ossia.part, true);
      const before = tied.get(height);
      if (n.tie?.stop && before) before.end = full;
      else {
        const short = n.marks?.some((m) => /staccat/.test(m.name)) ? SHARES.staccato.half : 1;
        const { db } = levels.findLast((l) => l.at <= from) ?? levels[0] ?? { db: 0 };
        const played: PlayedNote = {
          note: `${ossia.id}-${n.id}`,
          bar,
          part: ossia.part,
          staff: ossia.staff,
          midi: height,
          onset,
          end: onset + (full - onset) * short,
          db,
          dbEnd: db,
          lead: ossia.part === this.reading.part
        };
        notes.push(played);
        if (n.tie?.start) tied.set(height, played);
      }
    }
  }

  /** Seconds of a written tick of a part in a played bar; ticks after the bar's end are sought in the bars that follow. */
  private seconds(bar: number, ticks: number, part: number, lead: boolean): number {
    const { sounding } = this.playable;
    const { bars: played, lastPass } = this.order;
    let at = bar;
    const endOf = (measure: number): number => sounding.measureStarts[measure + 1] ?? sounding.totalTicks;
    while (ticks > endOf(played[at].measure) && played[at + 1]?.measure === played[at].measure + 1) at++;
    const { measure, pass } = played[at];
    const account = this.bars[at];
    if (ticks >= endOf(measure)) return account.start + account.planned;
    const variant = pass === lastPass[measure] ? this.clock.last : this.clock.usual;
    return account.start + secondsInMeasure(this.clock, variant, measure, bent(this.bends[part], ticks), lead);
  }

  /** The end of a note before the pause that may open there. */
  private until(bar: number, ticks: number, part: number, lead: boolean, onset: number): number {
    if (!this.opens.has(ticks)) return this.seconds(bar, ticks, part, lead);
    return Math.max(onset, this.seconds(bar, ticks - 1e-3, part, lead));
  }

  private play(notes: PlayedNote[], t: PlayableTone, bar: number, db: number, swell: number, share: number): void {
    const { tone, lead } = t;
    const { note } = tone;
    const { part } = note;
    const shift = this.asRead.shift(note);
    const onset = this.seconds(bar, tone.start, part, lead);
    const full = this.until(bar, tone.end, part, lead, onset);
    // Before a pause a long note gives up no more than the pause is worth.
    const pause = this.marks.pauses.has(note.id) && share >= 1 - PAUSES.breath.cut;
    const parted = full - Math.min((1 - share) * (full - onset), pause ? PAUSES.mostCut : Infinity);
    const pedal = this.sustained.find((s) => s.part === part && s.from < tone.end && tone.end < s.to);
    const end = pedal ? Math.max(parted, this.seconds(bar, pedal.to, part, lead)) : parted;
    const push = (midi: number, from: number, to: number, ornament: boolean, inside: number[] | null = null): void => {
      const played: PlayedNote = { note: note.id, bar, part, staff: note.staff, midi, onset: from, end: to, db, dbEnd: db + swell, lead };
      if (ornament) played.ornament = true;
      if (inside) played.inside = inside;
      notes.push(played);
    };
    const passing = this.order.bars[bar].pass > 0 ? this.passingNote(t) : null;
    if (passing !== null) {
      const middle = (onset + full) / 2;
      push(tone.midi + shift, onset, middle, false);
      push(passing, middle, end > middle ? end : full, true);
      return;
    }
    const realised = this.realisation(t, bar);
    if (realised) {
      // The ornament takes the time that its note has, whatever became of the beat.
      const span = ((full - onset) * this.playable.sounding.ticksPerQuarter) / (tone.end - tone.start);
      for (const n of realised.notes) {
        const at = Math.max(0, onset + toNumber(n.at) * span);
        const stop = Math.min(at + toNumber(n.length) * span, Math.max(end, at + 0.01));
        push(n.midi + this.asRead.octave(note), at, stop, !n.main);
      }
      return;
    }
    const late = this.spread(t);
    push(tone.midi + shift, late ? onset + Math.min(late, (end - onset) / 2) : onset, end, false, this.inside(t, db));
    const inflection = this.inflections.of(note);
    const turns = inflection && turnsOf(inflection, end - onset);
    if (turns?.length) notes[notes.length - 1].turns = turns;
  }

  /** The note that fills the third after a note the second time, where the reading has it so and repeats are decorated. */
  private passingNote({ tone }: PlayableTone): number | null {
    const { next, note } = tone;
    if (!next || this.settings.school('repeats', tone.start) !== 'ornament' || !this.settings.amount('ornaments', tone.start)) return null;
    if (!this.words.get(note.id)?.includes(PLAYER_WORDS.fillTheThird) || Math.abs(next.height - tone.height) !== 2) return null;
    const found = neighbourOf(this.playable.score, this.playable.facts, note, Math.sign(next.height - tone.height));
    return found && midi(transpose(found.pitch, this.playable.score.parts[note.part].transpose));
  }

  /** Levels inside a note longer than a beat over which the plan turns. */
  private inside(t: PlayableTone, db: number): number[] | null {
    const tpq = this.playable.sounding.ticksPerQuarter;
    const amount = this.settings.amount('plan', t.tone.start);
    const points = (this.loud.plans[t.tone.note.part]?.[t.tone.note.staff] ?? this.loud.plans[t.tone.note.part]?.[1])?.points;
    if (!points || !amount || t.tone.end - t.tone.start <= tpq) return null;
    const [from, to] = [t.tone.start / tpq, t.tone.end / tpq];
    const turns = points.filter((p) => p.time > from && p.time < to);
    if (!turns.length) return null;
    const at = (time: number): number => levelDb(levelOf(points, time));
    return Array.from({ length: 8 }, (_, k) => db + (at(from + ((k + 1) * (to - from)) / 9) - at(from + 1e-6)) * amount);
  }

  private school(ticks: number, note: string): OrnamentSchool {
    return {
      trillStart: this.settings.school('trill-start', ticks) === 'main' ? 'main' : 'upper',
      appoggiatura: this.settings.school('appoggiatura', ticks) === 'long' ? 'long' : 'short',
      placing: placingOf(this.settings.school('pipe-placing', ticks)),
      words: this.words.get(note) ?? []
    };
  }

  /** The ornament of a note at the tempo of its place; written out once for all times that the bar is played. */
  private realisation(t: PlayableTone, bar: number): Realisation | null {
    const { tone } = t;
    const note = this.asRead.note(tone.note);
    // Most notes bear none; those that do are written out once.
    if (!t.graces.length && !note.marks) return null;
    const known = this.written.get(note.id);
    if (known !== undefined) return known;
    const on = this.settings.amount('ornaments', tone.start) > 0;
    let found: Realisation | null = null;
    if (t.graces.length || (on && note.marks?.some((m) => m.group === 'ornament'))) {
      const tpq = this.playable.sounding.ticksPerQuarter;
      const span = this.seconds(bar, tone.end, note.part, t.lead) - this.seconds(bar, tone.start, note.part, t.lead);
      const length = frac(tone.end - tone.start, tpq);
      const tempo = span > 0 ? (60 * toNumber(length)) / span : FALLBACK_TEMPO;
      // Literally, small notes take no time of the note's own.
      const school: OrnamentSchool = on ? this.school(tone.start, note.id) : { trillStart: 'main', appoggiatura: 'short', words: [] };
      found = realise(this.playable.score, this.playable.facts, note, length, tempo, school, t.graces, tone.next?.note ?? null);
    }
    this.written.set(note.id, found);
    return found;
  }

  /** Seconds by which a note of a broken chord comes after its beat. */
  private spread(t: PlayableTone): number {
    const { note } = t.tone;
    const amount = this.settings.amount('chord-break', t.tone.start);
    if (!amount) return 0;
    const chord = this.playable.chords.get(note.id);
    if (!chord || chord.size < 2) return 0;
    const instrument = this.playable.instruments[note.part];
    const each = can(instrument, 'keys') ? SPREAD.keys : can(instrument, 'bows', 'plucks') ? SPREAD.strings : 0;
    if (chord.arpeggio) return chord.place * (each || SPREAD.keys) * amount;
    if (!can(instrument, 'bows') || chord.size < 3) return 0;
    const school = this.settings.school('chord-break', t.tone.start);
    if (school === 'from-below') return chord.place * each * amount;
    if (school === 'two-and-two') return (chord.place < 2 ? 0 : each * PAIR_SPREAD) * amount;
    return 0;
  }

  private unpitched(notes: PlayedNote[], n: PlayableScore['unpitched'][number]): void {
    const tpq = this.playable.sounding.ticksPerQuarter;
    const start = Math.round((n.start.n * tpq) / n.start.d);
    const end = start + Math.round((n.duration.n * tpq) / n.duration.d);
    this.order.bars.forEach((p, bar) => {
      if (p.measure !== n.measure) return;
      const onset = this.seconds(bar, start, n.part, false);
      notes.push({
        note: n.id,
        bar,
        part: n.part,
        staff: n.staff,
        midi: null,
        onset,
        end: this.seconds(bar, end, n.part, false),
        db: 0,
        dbEnd: 0,
        lead: false
      });
    });
  }
}
