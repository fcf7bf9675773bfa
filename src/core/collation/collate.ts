import { cmp, eq, format, sub, type Fraction, ZERO } from '../score/fraction.ts';
import type { Direction, Measure, Note, NoteMark, Score } from '../score/model.ts';
import { pitchName, staffStep } from '../score/pitch.ts';
import { barLabel, beatOf, beatWords, measureAt } from '../score/position.ts';
import { tempoOfWords } from '../style/tempo-words.ts';
import { alignBars, type BarPair } from './align-bars.ts';
import type { DifferenceKind, SourceDifference } from './difference.ts';

/** Two sources laid side by side. */
export interface Collation {
  bars: BarPair[];
  differences: SourceDifference[];
}

const NOTHING = 'nothing';
const VALUES: Record<string, string> = { '16th': '16th', '32nd': '32nd', '64th': '64th' };

/** "dotted quarter", "eighth": a note's value as it is written. */
const valueOf = (n: Note): string =>
  `${'dotted '.repeat(n.dots ?? 0)}${VALUES[n.type ?? ''] ?? n.type ?? `${format(n.duration)} quarters`}${n.timeModification ? ` (${n.timeModification.actual}:${n.timeModification.normal})` : ''}`;
const momentOf = (n: Fraction): string => `${n.n}/${n.d}`;
const plural = (list: readonly string[]): string => (list.length ? list.join(', ') : NOTHING);
const markName = (m: NoteMark): string => m.name.replace(/-/g, ' ') + (m.value && m.group !== 'arpeggio' ? ` ${m.value}` : '');

/** Collects what differs in one pair of bars and one part. */
class BarCollector {
  readonly found: SourceDifference[] = [];

  constructor(
    private readonly measure: number,
    private readonly other: number,
    private readonly part: number
  ) {}

  add(
    kind: DifferenceKind,
    onset: Fraction,
    ours: string,
    theirs: string,
    ourNotes: readonly Note[] = [],
    theirNotes: readonly Note[] = [],
    takeable = true
  ): void {
    const at = `${kind}-${this.part}-${this.measure}-${format(onset)}`;
    const before = this.found.filter((d) => d.id.startsWith(at)).length;
    this.found.push({
      id: before ? `${at}-${before}` : at,
      kind,
      part: this.part,
      measure: this.measure,
      other: this.other,
      onset,
      ours,
      theirs,
      ourNotes: ourNotes.map((n) => n.id),
      theirNotes: theirNotes.map((n) => n.id),
      takeable
    });
  }
}

/** Notes of one part by measure. */
function notesByBar(score: Score, part: number): Note[][] {
  const bars: Note[][] = score.measures.map(() => []);
  for (const n of score.notes) if (n.part === part && !n.cue) bars[n.measure].push(n);
  return bars;
}

const sounding = (notes: readonly Note[]): Note[] =>
  notes
    .filter((n) => !n.rest && !n.grace)
    .sort((x, y) => x.staff - y.staff || cmp(x.onset, y.onset) || (x.pitch && y.pitch ? staffStep(x.pitch) - staffStep(y.pitch) : 0));

const name = (n: Note): string => (n.pitch ? pitchName(n.pitch) : 'a note without pitch');
const samePitch = (x: Note, y: Note): boolean => name(x) === name(y);

/**
 * Notes and rhythm of one bar: what agrees is paired; notes at another height on the same moment differ as notes; all
 * that stands at other moments or with other lengths differs as the rhythm of the bar.
 */
function collateNotes(ours: readonly Note[], theirs: readonly Note[], out: BarCollector): [Note, Note][] {
  const pairs: [Note, Note][] = [];
  let left = sounding(ours);
  const right = sounding(theirs);
  const take = (alike: (x: Note, y: Note) => boolean, then: (x: Note, y: Note) => void): void => {
    const rest: Note[] = [];
    for (const x of left) {
      const k = right.findIndex((y) => alike(x, y));
      if (k < 0) rest.push(x);
      else {
        const [y] = right.splice(k, 1);
        pairs.push([x, y]);
        then(x, y);
      }
    }
    left = rest;
  };
  const tied = (n: Note): string => (n.tie?.start ? 'tied on' : 'not tied');
  const rhythm: [Note | null, Note | null][] = [];
  take(
    (x, y) => eq(x.onset, y.onset) && samePitch(x, y) && eq(x.duration, y.duration),
    (x, y) => {
      if (Boolean(x.tie?.start) !== Boolean(y.tie?.start))
        out.add('rhythm', x.onset, `${name(x)} ${tied(x)}`, `${name(y)} ${tied(y)}`, [x], [y], false);
    }
  );
  take(
    (x, y) => eq(x.onset, y.onset) && x.staff === y.staff && eq(x.duration, y.duration),
    (x, y) => out.add('notes', x.onset, name(x), name(y), [x], [y])
  );
  take(
    (x, y) => samePitch(x, y) && x.staff === y.staff,
    (x, y) => rhythm.push([x, y])
  );
  take(
    (x, y) => eq(x.onset, y.onset) && x.staff === y.staff,
    (x, y) => rhythm.push([x, y])
  );
  const ends = (list: readonly Note[]): Set<string> => new Set(list.map((n) => momentOf(n.onset)));
  // A note that one source has beside others at a moment that both know is a note more or less; the rest is rhythm.
  const moments = { ours: ends(sounding(ours)), theirs: ends(sounding(theirs)) };
  for (const x of left) {
    if (!rhythm.length && moments.theirs.has(momentOf(x.onset))) out.add('notes', x.onset, name(x), NOTHING, [x], [], true);
    else rhythm.push([x, null]);
  }
  for (const y of right) {
    if (!rhythm.length && moments.ours.has(momentOf(y.onset))) out.add('notes', y.onset, NOTHING, name(y), [], [y], true);
    else rhythm.push([null, y]);
  }
  if (rhythm.length) {
    const mine = rhythm.flatMap(([x]) => (x ? [x] : []));
    const other = rhythm.flatMap(([, y]) => (y ? [y] : []));
    const first = [...mine, ...other].map((n) => n.onset).sort(cmp)[0];
    const says = (list: readonly Note[]): string =>
      plural([...list].sort((p, q) => cmp(p.onset, q.onset)).map((n) => `${name(n)} ${valueOf(n)}`));
    out.add('rhythm', first, says(mine), says(other), mine, other);
  }
  return pairs;
}

/** By moment and staff: what stands over the notes there, whichever note of a chord bears it. */
function atMoments(notes: readonly Note[], says: (n: Note) => string[]): Map<string, { onset: Fraction; what: string[]; notes: Note[] }> {
  const map = new Map<string, { onset: Fraction; what: string[]; notes: Note[] }>();
  for (const n of notes) {
    const key = `${n.staff}|${momentOf(n.onset)}`;
    const entry = map.get(key) ?? { onset: n.onset, what: [], notes: [] };
    entry.what.push(...says(n));
    entry.notes.push(n);
    map.set(key, entry);
  }
  for (const e of map.values()) e.what.sort();
  return map;
}

function collateSigns(ours: readonly Note[], theirs: readonly Note[], out: BarCollector): void {
  const compare = (kind: DifferenceKind, says: (n: Note) => string[]): void => {
    const [mine, other] = [atMoments(ours, says), atMoments(theirs, says)];
    for (const [key, m] of mine) {
      const o = other.get(key);
      // Where the notes themselves differ in time, their signs go with them.
      if (o && m.what.join() !== o.what.join()) out.add(kind, m.onset, plural(m.what), plural(o.what), m.notes, o.notes);
    }
  };
  compare('articulation', (n) =>
    (n.marks ?? []).filter((m) => ['articulation', 'technical', 'fermata', 'arpeggio'].includes(m.group)).map(markName)
  );
  compare('ornament', (n) => [
    ...(n.grace ? [`small note ${name(n)}${n.grace.slash ? ' with a stroke' : ''}`] : []),
    ...(n.marks ?? []).filter((m) => m.group === 'ornament').map(markName)
  ]);
}

/** What a direction says, and as which kind of difference it counts. */
function directionSays(d: Direction): [DifferenceKind, string] | null {
  switch (d.kind) {
    case 'dynamic':
      return ['dynamic', d.value];
    case 'metronome':
      return d.perMinute ? ['tempo', `${'dotted '.repeat(d.dots)}${d.unit} = ${d.perMinute}`] : null;
    case 'words':
      return d.text.trim() ? [tempoOfWords(d.text) ? 'tempo' : 'words', d.text.trim()] : null;
    default:
      return null;
  }
}

interface Placed {
  kind: DifferenceKind;
  onset: Fraction;
  says: string;
}

/** Directions of one part in one bar. */
const directionsIn = (score: Score, part: number): Placed[][] => {
  const bars: Placed[][] = score.measures.map(() => []);
  for (const d of score.directions) {
    const said = d.part === part ? directionSays(d) : null;
    if (said) bars[d.measure].push({ kind: said[0], onset: d.onset, says: said[1] });
  }
  return bars;
};

function collateDirections(ours: readonly Placed[], theirs: readonly Placed[], beat: (onset: Fraction) => string, out: BarCollector): void {
  for (const kind of ['dynamic', 'tempo', 'words'] as const) {
    let left = ours.filter((d) => d.kind === kind);
    const right = theirs.filter((d) => d.kind === kind);
    const take = (alike: (x: Placed, y: Placed) => boolean, then: (x: Placed, y: Placed) => void): void => {
      left = left.filter((x) => {
        const k = right.findIndex((y) => alike(x, y));
        if (k < 0) return true;
        then(x, right.splice(k, 1)[0]);
        return false;
      });
    };
    take(
      (x, y) => x.says === y.says && eq(x.onset, y.onset),
      () => {}
    );
    take(
      (x, y) => eq(x.onset, y.onset),
      (x, y) => out.add(kind, x.onset, x.says, y.says)
    );
    take(
      (x, y) => x.says === y.says,
      (x, y) => out.add(kind, x.onset, `${x.says} on ${beat(x.onset)}`, `${y.says} on ${beat(y.onset)}`)
    );
    for (const x of left) out.add(kind, x.onset, x.says, NOTHING);
    for (const y of right) out.add(kind, y.onset, NOTHING, y.says);
  }
}

interface Span {
  kind: 'slur' | 'dynamic';
  measure: number;
  onset: Fraction;
  what: string;
  endMeasure: number;
  endOnset: Fraction;
  notes: Note[];
}

/** Slurs and hairpins of one part with where they begin and end. */
function spansOf(score: Score, part: number): Span[] {
  const notes = new Map(score.notes.map((n) => [n.id, n]));
  const spans: Span[] = [];
  for (const s of score.slurs) {
    const [from, to] = [notes.get(s.from), notes.get(s.to)];
    if (s.kind === 'slur' && from?.part === part && to)
      spans.push({
        kind: 'slur',
        measure: from.measure,
        onset: from.onset,
        what: 'slur',
        endMeasure: to.measure,
        endOnset: to.onset,
        notes: [from, to]
      });
  }
  const barOf = (t: Fraction): Measure => measureAt(score, t);
  for (const h of score.hairpins) {
    if (h.part !== part) continue;
    const from = barOf(h.start);
    let to = barOf(h.end);
    // The end of a hairpin at a bar line belongs to the bar that it closes.
    if (eq(to.start, h.end) && to.index > from.index) to = score.measures[to.index - 1];
    spans.push({
      kind: 'dynamic',
      measure: from.index,
      onset: sub(h.start, from.start),
      what: h.kind,
      endMeasure: to.index,
      endOnset: sub(h.end, to.start),
      notes: []
    });
  }
  return spans;
}

/** Lays two sources of one piece side by side and lists every difference between them, in order of the bars. */
export function collate(a: Score, b: Score): Collation {
  const bars = alignBars(a, b);
  const differences: SourceDifference[] = [];
  const ourBar = new Map<number, number>();
  for (const p of bars) if (p.a !== null && p.b !== null) ourBar.set(p.b, p.a);
  collateMissing(a, b, bars, differences);
  const parts = Math.min(a.parts.length, b.parts.length);
  for (let part = 0; part < parts; part++) {
    const [ours, theirs] = [notesByBar(a, part), notesByBar(b, part)];
    const [ourWords, theirWords] = [directionsIn(a, part), directionsIn(b, part)];
    const collectors = new Map<number, BarCollector>();
    for (const { a: i, b: j } of bars) {
      if (i === null || j === null) continue;
      const out = new BarCollector(i, j, part);
      collectors.set(i, out);
      if (part === 0) collateMeasures(a, b, i, j, out);
      const [mine, other] = [ours[i], theirs[j]];
      collateNotes(mine, other, out);
      collateSigns(mine, other, out);
      const beat = (onset: Fraction): string => `beat ${beatWords(format(beatOf(a.measures[i], onset)))}`;
      collateDirections(ourWords[i], theirWords[j], beat, out);
    }
    collateSpans(a, spansOf(a, part), spansOf(b, part), ourBar, collectors);
    for (const c of collectors.values()) differences.push(...c.found);
  }
  return { bars, differences: differences.sort((x, y) => x.measure - y.measure || x.part - y.part || cmp(x.onset, y.onset)) };
}

/** Bars that one of the sources lacks, runs of them as one difference. */
function collateMissing(a: Score, b: Score, bars: readonly BarPair[], out: SourceDifference[]): void {
  for (let k = 0; k < bars.length;) {
    const side = bars[k].a === null ? 'b' : bars[k].b === null ? 'a' : null;
    if (!side) {
      k++;
      continue;
    }
    let end = k;
    while (end < bars.length && bars[end][side] !== null && bars[end][side === 'a' ? 'b' : 'a'] === null) end++;
    const score = side === 'a' ? a : b;
    const label = (at: number): string => barLabel(score.measures, score.measures[bars[at][side]!]);
    const what = end - k > 1 ? `${label(k)} to ${label(end - 1)}` : label(k);
    const measure = side === 'a' ? bars[k].a! : (bars.slice(end).find((p) => p.a !== null)?.a ?? a.measures.length - 1);
    out.push({
      id: `bars-${side}-${bars[k][side]}`,
      kind: 'bars',
      part: 0,
      measure,
      other: side === 'b' ? bars[k].b : null,
      onset: ZERO,
      ours: side === 'a' ? what : `no such bar`,
      theirs: side === 'b' ? what : 'no such bar',
      ourNotes: [],
      theirNotes: [],
      takeable: false
    });
    k = end;
  }
}

/** Meter, key and repeats where they change. */
function collateMeasures(a: Score, b: Score, i: number, j: number, out: BarCollector): void {
  const [x, y] = [a.measures[i], b.measures[j]];
  const [before, other] = [a.measures[i - 1], b.measures[j - 1]];
  const changes = <T>(of: (m: Measure) => T): boolean =>
    of(x) !== of(y) && !(before && other && of(before) === of(x) && of(other) === of(y));
  const meter = (m: Measure): string => m.time?.text ?? 'no meter';
  const key = (m: Measure): string => `${Math.abs(m.key.fifths)} ${m.key.fifths < 0 ? 'flats' : 'sharps'}`;
  if (changes(meter)) out.add('meter', ZERO, meter(x), meter(y), [], [], false);
  if (changes(key)) out.add('key', ZERO, key(x), key(y), [], [], false);
  const repeats = (m: Measure): string =>
    [
      m.repeatStart && 'repeat begins',
      m.repeatEnd && 'repeat ends',
      m.daCapo && 'da capo',
      m.dalSegno && 'dal segno',
      m.fine && 'fine',
      m.endingStart && `ending ${m.endingStart.join(', ')}`
    ]
      .filter(Boolean)
      .join(', ') || NOTHING;
  if (repeats(x) !== repeats(y)) out.add('repeats', ZERO, repeats(x), repeats(y), [], [], false);
}

function collateSpans(
  a: Score,
  ours: readonly Span[],
  theirs: readonly Span[],
  ourBar: ReadonlyMap<number, number>,
  out: ReadonlyMap<number, BarCollector>
): void {
  // Their places, told in our bars.
  let right = theirs.flatMap((s) => {
    const [from, to] = [ourBar.get(s.measure), ourBar.get(s.endMeasure)];
    return from === undefined || to === undefined ? [] : [{ ...s, measure: from, endMeasure: to }];
  });
  const known = (m: number): boolean => out.has(m);
  let left = ours.filter((s) => known(s.measure) && known(s.endMeasure));
  const begins = (x: Span, y: Span): boolean => x.kind === y.kind && x.measure === y.measure && eq(x.onset, y.onset);
  const ends = (x: Span, y: Span): boolean => x.kind === y.kind && x.endMeasure === y.endMeasure && eq(x.endOnset, y.endOnset);
  const place = (measure: number, onset: Fraction): string =>
    `${barLabel(a.measures, a.measures[measure])}, beat ${beatWords(format(beatOf(a.measures[measure], onset)))}`;
  const end = (s: Span): string => `${s.what} to ${place(s.endMeasure, s.endOnset)}`;
  const take = (alike: (x: Span, y: Span) => boolean, then: (x: Span, y: Span) => void): void => {
    left = left.filter((x) => {
      const y = right.find((r) => alike(x, r));
      if (!y) return true;
      right = right.filter((r) => r !== y);
      then(x, y);
      return false;
    });
  };
  take(
    (x, y) => begins(x, y) && ends(x, y) && x.what === y.what,
    () => {}
  );
  const differ = (x: Span, y: Span): void => out.get(x.measure)!.add(x.kind, x.onset, end(x), end(y), x.notes, y.notes);
  take(begins, differ);
  take(ends, (x, y) => {
    const from = (s: Span): string => `${s.what} from ${place(s.measure, s.onset)}`;
    out.get(x.measure)!.add(x.kind, x.onset, from(x), from(y), x.notes, y.notes);
  });
  for (const x of left) out.get(x.measure)!.add(x.kind, x.onset, end(x), NOTHING, x.notes, []);
  for (const y of right) out.get(y.measure)!.add(y.kind, y.onset, NOTHING, end(y), [], y.notes);
}
