/**
 * Pieces in which it is known what returns: themes made by chance, brought back at the same and another pitch, decorated,
 * shifted in the bar, in another voice, over new figures, with other music between. Numbers were chosen with odd seeds in view;
 * even ones were looked at on the way.
 */
import type { Score } from '../../../src/core/score/model.ts';
import { abc } from '../helpers.ts';
import { dice } from './composed.ts';
import type { Agreed } from './scorer.ts';

/** Two places with the same music, by bars from 1; how much later in the bar the second stands, in eighths. */
export interface Return {
  a: number;
  b: number;
  bars: number;
  shift: number;
}

export interface Returning extends Agreed {
  returns: Return[];
  tuned: boolean;
}

/** A melody as (degree from the tonic, eighths); a rest has no degree. */
type Line = { degree: number | null; eighths: number }[];

const BAR_RHYTHMS = [
  '2 2 2 2',
  '3 1 2 2',
  '2 1 1 2 2',
  '4 2 2',
  '2 2 4',
  '1 1 2 1 1 2',
  '3 1 3 1',
  '1 1 1 1 2 2',
  '2 2 1 1 2',
  '6 2',
  '2 4 2',
  '1 1 1 1 1 1 2'
];

/** Four or eight bars of melody that rises and falls like a tune and ends on a long note. */
function theme(roll: (n: number) => number, bars: number, high = 4, close = [0, 4][roll(2)]): Line {
  const line: Line = [];
  let degree = [0, 2, 4, 7][roll(4)];
  const own = [0, 1, 2].map(() => BAR_RHYTHMS[roll(BAR_RHYTHMS.length)]);
  for (let bar = 0; bar < bars; bar++) {
    if (bar === bars - 1) {
      line.push({ degree: degree > 2 ? 2 : 1, eighths: 2 }, { degree: close, eighths: 6 });
      break;
    }
    for (const text of own[(bar * 2 + roll(2)) % 3].split(' ')) {
      line.push({ degree, eighths: Number(text) });
      const step = [1, -1, 2, -2, 1, -1, 3, -3, 0, 4, -4][roll(11)];
      degree += degree + step > high + 5 || degree + step < high - 8 ? -step : step;
    }
  }
  return line;
}

const moved = (line: Line, by: number): Line => line.map((n) => ({ ...n, degree: n.degree === null ? null : n.degree + by }));
/** Quarters and longer notes broken into the note, its neighbour and the note. */
const decorated = (line: Line, roll: (n: number) => number): Line =>
  line.flatMap((n) => {
    if (n.degree === null || n.eighths < 2 || roll(3) === 0) return [n];
    if (n.eighths === 2)
      return [
        { degree: n.degree, eighths: 1 },
        { degree: n.degree + (roll(2) ? 1 : -1), eighths: 1 }
      ];
    return [
      { degree: n.degree, eighths: 1 },
      { degree: n.degree + 1, eighths: 1 },
      { degree: n.degree, eighths: n.eighths - 2 }
    ];
  });
const later = (line: Line, eighths: number): Line => [{ degree: null, eighths }, ...line];

const letter = (degree: number, octave: number): string => {
  const step = ((degree % 7) + 7) % 7;
  const at = octave + Math.floor(degree / 7);
  const name = 'CDEFGAB'[step];
  return at >= 5 ? name.toLowerCase() + "'".repeat(at - 5) : name + ','.repeat(4 - at);
};
/** Notes laid into bars of eight eighths, tied over the bar lines. */
function bars(line: Line, octave: number, count: number): string[] {
  const result = Array.from({ length: count }, () => '');
  let at = 0;
  for (const { degree, eighths } of line) {
    for (let left = eighths; left > 0;) {
      const bar = Math.floor(at / 8);
      const take = Math.min(left, 8 - (at % 8));
      if (bar < count)
        result[bar] += degree === null ? `z${take}` : `${letter(degree, octave)}${take}${left > take && bar + 1 < count ? '-' : ''}`;
      at += take;
      left -= take;
    }
  }
  for (let bar = 0; bar < count; bar++) {
    const filled = Math.max(0, Math.min(8, at - 8 * bar));
    if (filled < 8) result[bar] += `z${8 - filled}`;
  }
  return result;
}

/** Broken chords under a melody, in one of a few figures. */
function figures(roll: (n: number) => number, count: number): string[] {
  const figure = [
    [0, 2, 4, 2, 0, 2, 4, 2],
    [0, 4, 2, 4, 0, 4, 2, 4],
    [0, 4, 7, 4, 2, 4, 7, 4]
  ][roll(3)];
  return Array.from({ length: count }, (_, k) => {
    const root = k === count - 1 ? 0 : [0, 3, 4, 5, 1][roll(5)];
    return figure.map((f) => letter(root + f, 3)).join('');
  });
}

/** One strain of a plan: what it is, and how it stands to its model. */
interface Strain {
  of: string;
  bars?: number;
  by?: number;
  decorate?: boolean;
  shift?: number;
  /** The tune is given to the lower voice, or stays in the bass under another melody. */
  voice?: 'upper' | 'lower';
}

function build(
  name: string,
  seed: number,
  plan: Strain[],
  labels: string[] | null,
  texture: 'line' | 'keyboard' | 'voices',
  joints = ''
): Returning {
  const roll = dice(seed * 6007 + name.length * 17);
  const themes = new Map<string, Line>();
  const up: string[] = [];
  const low: string[] = [];
  const places = new Map<string, { at: number; bars: number; shift: number }[]>();
  const sections: [string, string][] = [];
  plan.forEach((strain, k) => {
    const count = strain.bars ?? 8;
    const own = themes.get(strain.of) ?? theme(dice(seed * 331 + strain.of.charCodeAt(0) * 7919), count);
    themes.set(strain.of, own);
    let line = strain.by ? moved(own, strain.by) : own;
    if (strain.decorate) line = decorated(line, roll);
    if (strain.shift) line = later(line, strain.shift);
    const at = up.length + 1;
    const list = places.get(strain.of) ?? [];
    list.push({ at, bars: count, shift: strain.shift ?? 0 });
    places.set(strain.of, list);
    if (labels) sections.push([String(at), labels[k]]);
    if (texture === 'line') up.push(...bars(line, 4, count));
    else if (texture === 'keyboard') {
      up.push(...bars(line, 5, count));
      low.push(...figures(roll, count));
    } else {
      const other = theme(roll, count, 2);
      const below = strain.voice === 'lower';
      up.push(...bars(below ? other : line, 5, count));
      low.push(...bars(below ? line : other, 3, count));
    }
    if (joints && k + 1 < plan.length) {
      up[up.length - 1] += joints;
      if (low.length) low[low.length - 1] += joints;
    }
  });
  const returns: Return[] = [...places.values()].flatMap((list) =>
    list.slice(1).map((p, k) => ({ a: list[k].at, b: p.at, bars: p.bars, shift: p.shift - list[k].shift }))
  );
  const join = (of: string[]): string => `${of.map((b) => (b.endsWith('||') ? b : `${b}|`)).join('')}]`;
  const head = 'M:4/4\nL:1/8';
  const key = ['C', 'G', 'F', 'D', 'Bb'][seed % 5];
  const text =
    texture === 'line'
      ? `${head}\nK:${key}\n${join(up)}`
      : `${head}\n%%score {R L}\nV:R\nV:L clef=bass\nK:${key}\nV:R\n${join(up)}\nV:L\n${join(low)}`;
  const score = (): Score => abc(text);
  const label = `${name}, ${texture}, ${seed}`;
  return { name: label, source: 'written from it', score, returns, tuned: seed % 2 === 1, ...(labels ? { sections } : {}) };
}

const textures = ['line', 'keyboard'] as const;
const many = (make: (seed: number, texture: 'line' | 'keyboard') => Returning): Returning[] =>
  [1, 2, 3, 4].map((seed) => make(seed, textures[Math.floor(seed / 2) % 2]));
const plain = (letters: string): Strain[] => letters.split(' ').map((of) => ({ of }));
const formed = (name: string, letters: string): Returning[] => many((s, t) => build(name, s, plain(letters), letters.split(' '), t));

export const RETURNS: Returning[] = [
  ...formed('rondo', 'A B A C A'),
  ...formed('three strophes', 'A A A'),
  ...formed('song in four strains', 'A A B A'),
  ...many((s, t) => build('decorated return', s, [{ of: 'A' }, { of: 'B' }, { of: 'A', decorate: true }], ['A', 'B', "A'"], t)),
  ...many((s, t) => build('return at the fifth', s, [{ of: 'A' }, { of: 'B' }, { of: 'A', by: 4 }], ['A', 'B', "A'"], t)),
  ...many((s, t) =>
    build('decorated return at the fifth', s, [{ of: 'A' }, { of: 'B' }, { of: 'A', by: -3, decorate: true }], ['A', 'B', "A'"], t)
  ),
  ...many((s, t) => build('an eighth later', s, [{ of: 'A' }, { of: 'B' }, { of: 'A', shift: 1 }, { of: 'C', bars: 4 }], null, t)),
  ...many((s, t) => build('a quarter later', s, [{ of: 'A' }, { of: 'B' }, { of: 'A', shift: 2 }, { of: 'C', bars: 4 }], null, t)),
  ...many((s, t) =>
    build('short refrain', s, [{ of: 'A', bars: 4 }, { of: 'B' }, { of: 'A', bars: 4 }, { of: 'C' }, { of: 'A', bars: 4 }], null, t)
  ),
  ...many((s, t) => build('through-composed', s, plain('A B C'), ['A', 'B', 'C'], t, '||')),
  ...[1, 2, 3, 4].map((s) =>
    build('the tune in the other voice', s, [{ of: 'A' }, { of: 'A', by: s > 2 ? 4 : 0, voice: 'lower' }, { of: 'A' }], null, 'voices')
  ),
  ...[1, 2, 3, 4].map((s) =>
    build(
      'the bass under another melody',
      s,
      [
        { of: 'A', voice: 'lower' },
        { of: 'B', bars: 4 },
        { of: 'A', voice: 'lower' }
      ],
      null,
      'voices'
    )
  )
];

export interface FoundPlace {
  /** First and last bar, from 1. */
  a: [number, number];
  b: [number, number];
  /** Quarters by which b stands later in its bar. */
  shift: number;
}

/** What is found of the planted returns, and what is claimed that was not planted. */
export function scoreReturns(piece: Returning, places: readonly FoundPlace[]): { missing: Return[]; wrong: FoundPlace[] } {
  const missing = piece.returns.filter(
    (r) =>
      !places.some(
        (p) =>
          Math.abs(p.b[0] - p.a[0] - (r.b - r.a)) <= 1 &&
          Math.abs(p.shift + 4 * (p.b[0] - p.a[0] - (r.b - r.a)) - r.shift / 2) < 0.01 &&
          Math.min(p.a[1], r.a + r.bars - 1) - Math.max(p.a[0], r.a) + 1 >= 0.6 * r.bars
      )
  );
  // Every pair of copies of one theme is true, neighbours or not.
  const copies: number[][] = [];
  for (const r of piece.returns) {
    const own = copies.find((c) => c.includes(r.a));
    if (own) own.push(r.b);
    else copies.push([r.a, r.b]);
  }
  const isTrue = (p: FoundPlace): boolean =>
    copies.some((c) => c.some((x) => c.some((y) => y > x && Math.abs(p.b[0] - p.a[0] - (y - x)) <= 1)));
  return { missing, wrong: places.filter((p) => !isTrue(p)) };
}
