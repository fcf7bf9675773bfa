import { firstFrom, toTicks } from '../analysis/sounding-score.ts';
import { soundOf } from '../markings/describe.ts';
import type { Reading } from '../reading/reading.ts';
import { metronomeMarkings } from '../reading/in-force.ts';
import { add, toNumber } from '../score/fraction.ts';
import type { EffectKey } from '../style/effects.ts';
import { SIGN_SOUNDS } from '../style/articulations.ts';
import { ARCH_PEAK, CADENZA, CADENZA_SLOWING, FERMATA, GRADUAL, PAUSES, TIME_WEIGHTS } from '../style/performance-weights.ts';
import { tempoOfWords } from '../style/tempo-words.ts';
import type { TimeAct } from '../style/terms/acts.ts';
import { readWords, timeActIn } from '../style/terms/read-words.ts';
import { segmentAt, type TempoSegments } from './tempo-segments.ts';
import { timeAlong } from './tempo-curve.ts';
import { beatTicks, type PlayableScore } from './playable-score.ts';

/** What one effect does to the time: change of each cell's length as a share of the literal one; seconds before a cell. */
export interface TimeShare {
  effect: EffectKey;
  ratio: Float64Array;
  /** Pauses: seconds of rest that open before a cell. */
  gap?: Float64Array;
  /** Only the last time that a bar is played. */
  lastTime?: true;
  /** Given back within the bar where the school says "stolen". */
  shaping?: true;
}

/** A pause after a note: where it opens, in ticks, and of which kind. */
export interface Pause {
  at: number;
  kind: 'breath' | 'comma' | 'caesura' | 'wait';
  /** Id of the note that gives up a part of its length. */
  note?: string;
}

/** All pauses, printed and editorial. */
function pausesOf(playable: PlayableScore, reading: Reading): Pause[] {
  const found: Pause[] = [];
  const ends = playable.endOf;
  for (const { tone } of playable.tones)
    for (const m of tone.note.marks ?? []) {
      const pause = SIGN_SOUNDS[m.name]?.pause;
      if (pause) found.push({ at: tone.end, kind: pause, note: tone.note.id });
    }
  for (const m of reading.markings) {
    const { pause, words } = soundOf(m);
    const end = m.note ? ends(m.note) : undefined;
    if (pause && end !== undefined) found.push({ at: end, kind: pause, note: m.note });
    else if (words && timeActIn(words)?.kind === 'wait') found.push({ at: toTicks(playable.sounding, m.start), kind: 'wait' });
  }
  // One joint has one pause, the longest.
  const best = new Map<number, Pause>();
  for (const p of found) {
    const other = best.get(p.at);
    if (!other || PAUSES[p.kind].seconds > PAUSES[other.kind].seconds) best.set(p.at, p);
  }
  return [...best.values()].filter((p) => p.at < playable.sounding.totalTicks);
}

/** Notes under a fermata: ticks and how much longer. */
function fermatas(playable: PlayableScore, reading: Reading): { from: number; to: number; more: number }[] {
  const editorial = new Set(reading.markings.flatMap((m) => (soundOf(m).holds && m.note ? [m.note] : [])));
  const spans = new Map<string, { from: number; to: number; more: number }>();
  const shape = (value?: string): number =>
    /short|angled/.test(value ?? '') ? FERMATA.short : /long|square/.test(value ?? '') ? FERMATA.long : FERMATA.plain;
  for (const { tone } of playable.tones) {
    const mark = tone.note.marks?.find((m) => m.group === 'fermata');
    if (!mark && !editorial.has(tone.note.id)) continue;
    const key = `${tone.end}`;
    const before = spans.get(key);
    // Of a chord, and of voices that end together, the shortest note is the one that is held.
    if (!before || before.from < tone.start) spans.set(key, { from: tone.start, to: tone.end, more: shape(mark?.value) });
  }
  for (const n of playable.score.notes)
    if (n.rest && n.marks?.some((m) => m.group === 'fermata')) {
      const from = toTicks(playable.sounding, n.start);
      spans.set(`${from}r`, { from, to: toTicks(playable.sounding, add(n.start, n.duration)), more: FERMATA.plain });
    }
  for (const m of playable.score.measures)
    if (m.barFermata) {
      const to = toTicks(playable.sounding, add(m.start, m.length));
      spans.set(`${to}b`, { from: to - beatTicks(playable, m), to, more: FERMATA.barLine });
    }
  return [...spans.values()];
}

/** A change of tempo with its ends in ticks; `w` is the last tempo over the first. */
export interface GradualChange {
  from: number;
  to: number;
  w: number;
  /** Tempo at its beginning over that of the page: 1, or what “più mosso” has made of it. */
  base: number;
  /** The new tempo holds from the beginning (meno mosso). */
  atOnce: boolean;
  lastTime: boolean;
  text: string;
}

/** Last tempo over first tempo that a word asks for. */
function lastOverFirst(word: TimeAct): number {
  if (word.kind === 'new') return GRADUAL.other[word.size] ** word.way;
  if (word.kind === 'slow' || word.kind === 'fast') return GRADUAL[word.kind][word.size];
  return GRADUAL.atOnce;
}

/** Acts that change the tempo. */
const changes = (act: TimeAct): boolean => 'size' in act || act.kind === 'at once';
/** Acts that end a change under way. */
const ends = (act: TimeAct | null): boolean => act !== null && (changes(act) || act.kind === 'restore' || act.kind === 'same');

/** All gradual changes of tempo, printed and editorial. */
function gradualChanges(playable: PlayableScore, reading: Reading): GradualChange[] {
  const { score, sounding, facts } = playable;
  const act = (text: string): TimeAct | null => timeActIn(text, reading.period === 'classical' || reading.period === 'baroque');
  const words = [
    ...score.directions.flatMap((d) => (d.kind === 'words' ? [{ at: toTicks(sounding, d.start), text: d.text }] : [])),
    ...reading.markings.flatMap((m) => {
      const { words: text } = soundOf(m);
      return text === undefined ? [] : [{ at: toTicks(sounding, m.start), text }];
    })
  ].sort((a, b) => a.at - b.at);
  const marks = playable.marks.map((m) => m.at);
  const phraseEnds = facts.phrases.map((p) => toTicks(sounding, p.end));
  const stops = [...marks, ...words.flatMap((w) => (ends(act(w.text)) || tempoOfWords(w.text) ? [w.at] : []))];
  const found: GradualChange[] = [];
  let beforeAtOnce = 0;
  let before = -1;
  /** Tempo in force over the page's own, after “più mosso” and the like. */
  let base = 1;
  for (const { at, text } of words) {
    const word = act(text);
    // A metronome mark, a tempo word or “a tempo” ends what “più mosso” had begun.
    if (word?.kind === 'restore' || tempoOfWords(text) || marks.some((m) => m > before && m <= at)) base = 1;
    before = at;
    if (!word || !changes(word) || at < beforeAtOnce) continue;
    const bar = sounding.measureStarts.findLastIndex((s) => s <= at);
    const furthest = sounding.measureStarts[bar + GRADUAL.mostBars] ?? sounding.totalTicks;
    const stop = Math.min(...stops.filter((s) => s > at), sounding.totalTicks);
    const phrase = phraseEnds.find((e) => e > at + sounding.ticksPerQuarter) ?? sounding.totalTicks;
    // Another tempo holds until it is taken back; a change that goes on ends with its phrase.
    // Who hurries goes on until the page says otherwise, if it ever does.
    const untilSaid = word.kind === 'new' || (word.kind === 'fast' && stop < sounding.totalTicks);
    const to = untilSaid ? stop : Math.min(stop, Math.max(phrase, at + 1), furthest);
    if (to <= at) continue;
    const w = lastOverFirst(word);
    if (word.kind === 'new') base = w;
    found.push({
      from: at,
      to,
      w,
      base: word.kind === 'new' ? 1 : base,
      atOnce: 'way' in word || word.kind === 'at once',
      lastTime: readWords(text).lastTime,
      text
    });
    beforeAtOnce = at + 1;
  }
  return found;
}

/** Editorial metronome marks, in quarters a minute, by tick. */
const editorialTempi = (playable: PlayableScore, reading: Reading): { at: number; tempo: number }[] =>
  metronomeMarkings(reading.markings).map(({ start, tempo }) => ({ at: toTicks(playable.sounding, start), tempo }));

/** Everything that is marked to happen to the time, printed or editorial. */
export interface TimeActs {
  pauses: Pause[];
  fermatas: { from: number; to: number; more: number }[];
  changes: GradualChange[];
  tempi: { at: number; tempo: number }[];
  leaning: { from: number; to: number; share: number }[];
}

export const timeActs = (playable: PlayableScore, reading: Reading): TimeActs => ({
  pauses: pausesOf(playable, reading),
  fermatas: fermatas(playable, reading),
  changes: gradualChanges(playable, reading),
  tempi: editorialTempi(playable, reading),
  leaning: leaningNotes(playable, reading)
});

/** The page to the letter: nothing happens but what its numbers say. */
export const NO_ACTS: TimeActs = { pauses: [], fermatas: [], changes: [], tempi: [], leaning: [] };

/** Ticks at which an act begins or ends inside a bar: cells are cut there. */
export const cutPoints = (acts: TimeActs): number[] => [
  ...acts.pauses.map((p) => p.at),
  ...[...acts.fermatas, ...acts.changes, ...acts.leaning].flatMap((x) => [x.from, x.to]),
  ...acts.tempi.map((t) => t.at)
];

/** Leaning notes of the line: appoggiaturas and suspensions, accents and dashes; at most a beat of each. */
function leaningNotes(playable: PlayableScore, reading: Reading): { from: number; to: number; share: number }[] {
  const marked = new Map(reading.markings.flatMap((m) => (m.note ? [[m.note, soundOf(m).leans ?? 0] as const] : [])));
  return playable.tones.flatMap((t) => {
    if (!t.lead) return [];
    const { note, start, end } = t.tone;
    const leans =
      t.role === 'appoggiatura' || t.role === 'suspension'
        ? 1
        : Math.max(marked.get(note.id) ?? 0, ...(note.marks ?? []).map((m) => SIGN_SOUNDS[m.name]?.leans ?? 0));
    return leans
      ? [{ from: start, to: Math.min(end, start + beatTicks(playable, playable.score.measures[note.measure])), share: leans }]
      : [];
  });
}

type Range = { from: number; to: number };

/** Runs over the cells of a stretch of time. */
function within(segments: TempoSegments, { from, to }: Range, each: (cell: number) => void): void {
  for (let c = segmentAt(segments, from); c < segments.from.length && segments.from[c] < to; c++) if (segments.from[c] >= from) each(c);
}

/** Free bars whose values grow toward their end: the last notes of the line are longer than the first ones. */
function growingBars({ tones, score }: PlayableScore): Set<number> {
  const lengths = new Map<number, number[]>();
  for (const { tone, lead } of tones) {
    const { measure } = tone.note;
    if (lead && !score.measures[measure].time?.quarters) lengths.set(measure, [...(lengths.get(measure) ?? []), tone.end - tone.start]);
  }
  const mean = (list: number[]): number => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);
  return new Set(
    [...lengths].flatMap(([measure, list]) => {
      const third = Math.ceil(list.length / 3);
      const grows = list.length >= 4 && list.slice(-third).every((x, k, own) => k === 0 || x >= own[k - 1]);
      return grows && mean(list.slice(-third)) > mean(list.slice(0, third)) ? [measure] : [];
    })
  );
}

/** The shares of every effect on the time, at its usual amount. */
export function timeShares(playable: PlayableScore, reading: Reading, segments: TempoSegments, acts: TimeActs): TimeShare[] {
  const { sounding, facts, score } = playable;
  const weights = TIME_WEIGHTS[reading.period];
  const count = segments.from.length;
  const empty = (): Float64Array => new Float64Array(count);
  const ticks = (time: Parameters<typeof toTicks>[1]): number => toTicks(sounding, time);
  const shares: TimeShare[] = [];

  const { tempi } = acts;
  if (tempi.length) {
    const ratio = empty();
    tempi.forEach(({ at, tempo }, k) => {
      // An editorial mark holds until the next mark of any kind.
      const printed = playable.marks.find((m) => m.at > at)?.at ?? Infinity;
      const until = Math.min(tempi[k + 1]?.at ?? Infinity, printed, sounding.totalTicks);
      within(segments, { from: at, to: until }, (c) => {
        const planned = ((segments.to[c] - segments.from[c]) * 60) / (tempo * sounding.ticksPerQuarter);
        ratio[c] = planned / segments.literal[c] - 1;
      });
    });
    shares.push({ effect: 'tempo', ratio });
  }

  const always = empty();
  const atLast = empty();
  for (const { from, to, w, base, atOnce, lastTime } of acts.changes) {
    const ratio = lastTime ? atLast : always;
    within(segments, { from, to }, (c) => {
      if (atOnce) {
        ratio[c] = 1 / (w * base) - 1;
        return;
      }
      const a = (segments.from[c] - from) / (to - from);
      const b = (Math.min(segments.to[c], to) - from) / (to - from);
      ratio[c] = (timeAlong(b, w, GRADUAL.q) - timeAlong(a, w, GRADUAL.q)) / ((b - a) * base) - 1;
    });
  }
  shares.push({ effect: 'gradual', ratio: always }, { effect: 'gradual', ratio: atLast, lastTime: true });

  const arch = empty();
  const addArch = (from: number, to: number, size: number): void => {
    if (!size || to - from < 2 * sounding.ticksPerQuarter) return;
    const cellsIn: number[] = [];
    within(segments, { from, to }, (c) => cellsIn.push(c));
    let mean = 0;
    let total = 0;
    const shape = cellsIn.map((c) => {
      const u = ((segments.from[c] + segments.to[c]) / 2 - from) / (to - from);
      const d = u < ARCH_PEAK ? (ARCH_PEAK - u) / ARCH_PEAK : (u - ARCH_PEAK) / (1 - ARCH_PEAK);
      mean += d * d * segments.literal[c];
      total += segments.literal[c];
      return d * d;
    });
    // What is given at the ends is taken in the middle: the phrase as a whole keeps its time.
    cellsIn.forEach((c, k) => (arch[c] += size * (shape[k] - mean / total)));
  };
  for (const p of facts.phrases) addArch(ticks(p.start), ticks(p.end), weights.arch);
  for (const s of facts.sections) addArch(ticks(s.start), ticks(s.end), weights.sectionArch);
  shares.push({ effect: 'arch', ratio: arch, shaping: true });

  const phraseEnd = empty();
  for (const p of facts.phrases) {
    const end = ticks(p.end);
    if (end >= sounding.totalTicks) continue;
    const measure =
      score.measures[
        Math.max(
          0,
          sounding.measureStarts.findLastIndex((s) => s < end)
        )
      ];
    const beat = beatTicks(playable, measure);
    // A written rest parts the phrases already.
    const last = playable.sounding.melody[firstFrom(playable.sounding.melody, end) - 1];
    if (last && end - last.end >= beat) continue;
    within(segments, { from: end - beat, to: end }, (c) => (phraseEnd[c] += weights.phraseEnd * p.confidence));
  }
  shares.push({ effect: 'phrase-end', ratio: phraseEnd, shaping: true });

  const cadence = empty();
  for (const f of facts.cadences) {
    const goal = ticks(f.start);
    const lead = facts.chords.find((c) => c.id === f.from);
    const measure =
      score.measures[
        Math.max(
          0,
          sounding.measureStarts.findLastIndex((s) => s < goal)
        )
      ];
    const bar = sounding.measureStarts[measure.index + 1] - sounding.measureStarts[measure.index];
    const from = Math.max(lead ? ticks(lead.start) : goal - bar, goal - bar, goal - 2 * beatTicks(playable, measure));
    within(segments, { from, to: goal }, (c) => (cadence[c] += weights.cadence * f.strength));
  }
  shares.push({ effect: 'cadence', ratio: cadence, shaping: true });

  const gap = empty();
  for (const p of acts.pauses) {
    const c = segmentAt(segments, p.at);
    const beat = beatTicks(playable, score.measures[segments.measure[c]]);
    const beatSeconds = (segments.literal[c] * beat) / (segments.to[c] - segments.from[c]);
    gap[c] = Math.min(PAUSES[p.kind].seconds, PAUSES.mostOfBeat * beatSeconds);
  }
  shares.push({ effect: 'breath', ratio: empty(), gap });

  const held = empty();
  for (const f of acts.fermatas) within(segments, f, (c) => (held[c] = Math.max(held[c], f.more)));
  shares.push({ effect: 'fermata', ratio: held });

  const leaning = empty();
  for (const t of acts.leaning) within(segments, t, (c) => (leaning[c] = Math.max(leaning[c], weights.leaning * t.share)));
  shares.push({ effect: 'leaning', ratio: leaning, shaping: true });

  const cadenza = empty();
  const growing = growingBars(playable);
  for (const m of score.measures) {
    if (m.time?.quarters || toNumber(m.length) < 2) continue;
    for (let c = segments.first[m.index]; c < segments.first[m.index + 1]; c++) {
      const start = sounding.measureStarts[m.index];
      const u = ((segments.from[c] + segments.to[c]) / 2 - start) / ((sounding.measureStarts[m.index + 1] ?? sounding.totalTicks) - start);
      cadenza[c] = growing.has(m.index) ? CADENZA_SLOWING * (u ** 2 - 1 / 3) : CADENZA * ((2 * u - 1) ** 2 - 1 / 3);
    }
  }
  shares.push({ effect: 'cadenza', ratio: cadenza });

  const own = empty();
  const pulled = empty();
  for (let c = 0; c < count; c++) {
    own[c] = reading.rubato[segments.measure[c]]?.[segments.beat[c]] ?? 0;
    pulled[c] = (reading.timePulls[segments.measure[c]] ?? 1) - 1;
  }
  shares.push({ effect: 'own', ratio: own, shaping: true }, { effect: 'pulled', ratio: pulled });
  // What changes nothing in this reading is left out.
  return shares.filter((s) => s.gap?.some((x) => x !== 0) || s.ratio.some((x) => x !== 0));
}
