/** What an agreed analysis of a piece asks for, and how a reading is scored against it. */
import { analyse } from '../../../src/core/analysis/analyse.ts';
import type { Facts } from '../../../src/core/analysis/facts.ts';
import { parseKey } from '../../../src/core/analysis/keys.ts';
import { toNumber, type Fraction } from '../../../src/core/score/fraction.ts';
import type { Score } from '../../../src/core/score/model.ts';
import { fifthsPc } from '../../../src/core/score/pitch.ts';
import { measureAt } from '../../../src/core/score/position.ts';

export interface Agreed {
  name: string;
  /** Where the analysis is published, or who agrees on it. */
  source: string;
  score(): Score;
  /** Key from a bar on (by printed number); "?" where analysts differ. */
  keys?: [bar: string, key: string][];
  /** Chords bar by bar as root and quality ("Dm", "G7", "Bo"), several in equal shares of the bar; "?" where analysts differ. */
  chords?: Record<string, string>;
  cadences?: [bar: string, type: string][];
  /** Bars in which phrases end. */
  phraseEnds?: string[];
  /** Label of the section from a bar on. */
  sections?: [bar: string, label: string][];
  /** First bars of places with the same music and how many bars they go on. */
  parallels?: [a: string, b: string, bars: number][];
  /** First and last bar. */
  sequences?: [from: string, to: string][];
}

/** Hits and misses of one kind of fact, to be added up over pieces. */
export interface Tally {
  right: number;
  wanted: number;
  claimed: number;
}

export type Kind = 'keys' | 'chords' | 'cadences' | 'phraseEnds' | 'sections' | 'parallels' | 'sequences';
export const KINDS: Kind[] = ['keys', 'chords', 'cadences', 'phraseEnds', 'sections', 'parallels', 'sequences'];
export const recall = (t: Tally): number => (t.wanted ? t.right / t.wanted : 1);
export const f1 = (t: Tally): number => (t.wanted + t.claimed ? (2 * t.right) / (t.wanted + t.claimed) : 1);

const barIndex = (score: Score, number: string): number => {
  const found = score.measures.find((m) => m.number === number);
  if (!found) throw new Error(`no bar ${number}`);
  return found.index;
};
const indexOf = (score: Score, at: Fraction): number => measureAt(score, at).index;

/** Root and plain quality: sevenths count as their triads, so that V and V7 agree. */
export const TRIAD: Record<string, string> = {
  maj: '',
  dom7: '',
  maj7: '',
  min: 'm',
  min7: 'm',
  dim: 'o',
  dim7: 'o',
  hdim7: 'o',
  aug: '+',
  it: 'x',
  fr: 'x',
  ger: 'x'
};

function scoreKeys(score: Score, facts: Facts, agreed: Agreed): Tally {
  const tally = { right: 0, wanted: 0, claimed: 0 };
  const changes = agreed.keys!.map(([bar, key]) => ({ at: barIndex(score, bar), key }));
  for (const m of score.measures) {
    const wanted = changes.findLast((c) => c.at <= m.index)?.key;
    if (!wanted || wanted === '?') continue;
    for (let q = 0; q < toNumber(m.length); q += 0.5) {
      const time = toNumber(m.start) + q;
      const found = facts.keys.find((k) => toNumber(k.start) <= time && toNumber(k.end) > time);
      tally.wanted++;
      if (found?.name === wanted) tally.right++;
    }
  }
  return tally;
}

function scoreChords(score: Score, facts: Facts, agreed: Agreed): Tally {
  const tally = { right: 0, wanted: 0, claimed: 0 };
  for (const [bar, text] of Object.entries(agreed.chords!)) {
    const m = score.measures[barIndex(score, bar)];
    const chords = text.split(' ');
    const step = toNumber(m.length) / 8;
    for (let k = 0; k < 8; k++) {
      const wanted = chords[Math.floor((k * chords.length) / 8)];
      const match = /^([A-G][#b]?)(.*)$/.exec(wanted);
      if (!match) continue;
      const time = toNumber(m.start) + (k + 0.5) * step;
      const found = facts.chords.find((c) => toNumber(c.start) <= time && toNumber(c.end) > time);
      tally.wanted++;
      const quality = match[2].replace('7', '');
      const pc = (name: string) => fifthsPc(parseKey(`${name} major`)!.tonic);
      if (found && pc(found.root) === pc(match[1]) && TRIAD[found.quality] === quality) tally.right++;
    }
  }
  return tally;
}

export function scorePiece(agreed: Agreed): Partial<Record<Kind, Tally>> {
  const score = agreed.score();
  const facts = analyse(score);
  const result: Partial<Record<Kind, Tally>> = {};
  if (agreed.keys) result.keys = scoreKeys(score, facts, agreed);
  if (agreed.chords) result.chords = scoreChords(score, facts, agreed);
  if (agreed.cadences) {
    // Perfect and imperfect closes count as one; a cadence may be claimed only where one is agreed, within a bar.
    const family = (t: string): string => (t === 'IAC' ? 'PAC' : t);
    const found = facts.cadences.map((c) => ({ bar: indexOf(score, c.start), type: family(c.type) }));
    const right = agreed.cadences.filter(([bar, type]) =>
      found.some((f) => Math.abs(f.bar - barIndex(score, bar)) <= 1 && f.type === family(type))
    ).length;
    // Pieces with only some closes agreed (long ones) ask for those and count no others against the engine.
    const whole = agreed.phraseEnds !== undefined;
    result.cadences = { right, wanted: agreed.cadences.length, claimed: whole ? found.length : right };
  }
  if (agreed.phraseEnds) {
    const found = facts.phrases.map((p) => indexOf(score, p.last));
    const right = agreed.phraseEnds.filter((bar) => found.includes(barIndex(score, bar))).length;
    result.phraseEnds = { right, wanted: agreed.phraseEnds.length, claimed: agreed.name.includes('second trio') ? right : found.length };
  }
  if (agreed.sections) {
    // Pairwise agreement of bars: two bars are alike or not in both.
    const wanted = agreed.sections.map(([bar, label]) => ({ at: barIndex(score, bar), label: label.replace(/'/g, '') }));
    const label = (index: number): string => wanted.findLast((s) => s.at <= index)!.label;
    const own = (index: number): string => {
      const time = toNumber(score.measures[index].start) + toNumber(score.measures[index].length) / 2;
      return (facts.sections.find((s) => toNumber(s.start) <= time && toNumber(s.end) > time)?.label ?? '?').replace(/'/g, '');
    };
    const tally = { right: 0, wanted: 0, claimed: 0 };
    for (let a = 0; a < score.measures.length; a++)
      for (let b = a + 1; b < score.measures.length; b++) {
        const x = label(a) === label(b);
        const y = own(a) === own(b);
        if (x) tally.wanted++;
        if (y) tally.claimed++;
        if (x && y) tally.right++;
      }
    result.sections = tally;
  }
  if (agreed.parallels) {
    const right = agreed.parallels.filter(([a, b, bars]) => {
      const lag = barIndex(score, b) - barIndex(score, a);
      const from = barIndex(score, a);
      return facts.parallels.some((p) => {
        const start = indexOf(score, p.a.start);
        const end = indexOf(score, p.a.last) + 1;
        const shared = Math.min(end, from + bars) - Math.max(start, from);
        return Math.abs(indexOf(score, p.b.start) - start - lag) <= 0 && shared >= 0.5 * bars;
      });
    }).length;
    result.parallels = { right, wanted: agreed.parallels.length, claimed: right };
  }
  if (agreed.sequences) {
    const right = agreed.sequences.filter(([from, to]) =>
      facts.sequences.some((s) => {
        const [a, b] = [barIndex(score, from), barIndex(score, to)];
        const shared = Math.min(indexOf(score, s.last), b) - Math.max(indexOf(score, s.start), a) + 1;
        return shared >= 0.6 * (b - a + 1);
      })
    ).length;
    result.sequences = { right, wanted: agreed.sequences.length, claimed: facts.sequences.length };
  }
  return result;
}

/** All pieces, kind by kind; chords and keys by time over all pieces, the others by event. */
export function scoreAll(set: readonly Agreed[]): Record<Kind, Tally> {
  const totals = Object.fromEntries(KINDS.map((k) => [k, { right: 0, wanted: 0, claimed: 0 }])) as Record<Kind, Tally>;
  for (const agreed of set) {
    const own = scorePiece(agreed);
    for (const kind of KINDS) {
      const t = own[kind];
      if (!t) continue;
      totals[kind].right += t.right;
      totals[kind].wanted += t.wanted;
      totals[kind].claimed += t.claimed;
    }
  }
  return totals;
}
