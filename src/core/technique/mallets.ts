import { MALLETS as PRICE } from '../style/mallets.ts';
import { Way, type Tally } from './cheapest.ts';
import { height, levelOf, silenceBefore, topOf, type PlayerLine } from './player-line.ts';

export type Stick = 'L' | 'R' | '1' | '2' | '3' | '4';

export interface Sticking {
  /** By attack: a stick for each head, from the lowest. */
  sticks: (readonly Stick[])[];
  prices: number[];
  total: number;
  /** Attacks with more heads than sticks. */
  tooMany: number[];
}

/** The hand of a stick: mallets 1 and 2 are the left hand's. */
const handOf = (s: Stick): 'L' | 'R' => (s === 'L' || s === '1' || s === '2' ? 'L' : 'R');

/** Sticks for each head. Two mallets, or four where three or more keys are struck together. */
export function sticking(line: PlayerLine, pins: ReadonlyMap<number, Stick | 'left' | 'right'>): Sticking {
  const { attacks, score } = line;
  const four = attacks.some((a) => a.notes.length > 2);
  const lone: readonly Stick[] = four ? ['2', '3'] : ['L', 'R'];
  const tooMany: number[] = [];
  const layers = attacks.map((a, k): (readonly Stick[])[] => {
    const n = a.notes.length;
    if (n > (four ? 4 : 2)) tooMany.push(k);
    const options: (readonly Stick[])[] =
      n === 1
        ? (four ? (['2', '3', '1', '4'] as const) : lone).map((s) => [s])
        : n === 2
          ? four
            ? [
                ['2', '3'],
                ['1', '4'],
                ['1', '3'],
                ['2', '4'],
                ['1', '2'],
                ['3', '4']
              ]
            : [['L', 'R']]
          : n === 3
            ? [
                ['1', '2', '3'],
                ['2', '3', '4'],
                ['1', '2', '4'],
                ['1', '3', '4']
              ]
            : [[...(['1', '2', '3', '4'] as const), ...new Array<Stick>(Math.max(0, n - 4)).fill('4')]];
    const pin = pins.get(k);
    const kept = pin
      ? options.filter((o) => o.some((s) => s === pin || (pin === 'left' ? handOf(s) === 'L' : pin === 'right' && handOf(s) === 'R')))
      : options;
    return kept.length ? kept : options;
  });
  const question = {
    layers,
    own: (k: number, sticks: readonly Stick[], tally: Tally): void => {
      const outside = sticks.filter((s) => s === '1' || s === '4').length;
      if (sticks.length === 1 && outside) tally('outer mallet on a line', PRICE.lead);
      const a = attacks[k];
      const note = a.notes[0];
      if (sticks.length === 1 && handOf(sticks[0]) === 'L' && levelOf(score, note) === 3)
        tally('left hand on a downbeat', PRICE.strongLeft);
      const next = attacks[k + 1];
      if (sticks.length === 1 && next && (k === 0 || silenceBefore(line, k) > 0)) {
        const up = height(topOf(next)) - height(topOf(a));
        if (up !== 0 && (handOf(sticks[0]) === 'R') !== up > 0) tally('leads with the other hand', PRICE.lead);
      }
    },
    step: (k: number, before: readonly Stick[], now: readonly Stick[], tally: Tally): void => {
      const [a, b] = [attacks[k - 1], attacks[k]];
      const gap = Math.max(0.02, b.from - a.from);
      for (const [i, s] of before.entries())
        for (const [j, t] of now.entries()) {
          const [p, q] = [height(a.notes[i]), height(b.notes[j])];
          if (handOf(s) === handOf(t)) {
            if (before.length === 1 && now.length === 1) tally('the same hand again', PRICE.again + PRICE.againQuick / gap);
            tally('jump', (PRICE.jump * Math.abs(p - q)) / gap);
          } else if (before.length === 1 && now.length === 1) {
            const over = handOf(t) === 'R' ? p - q : q - p;
            if (over > 0) tally('hands cross', PRICE.crossing * Number(over > 2) + PRICE.crossingASemitone * over);
          }
        }
    }
  };
  const way = new Way(question);
  return { sticks: way.path, prices: way.prices, total: way.total, tooMany };
}
