import { STRING_NAMES } from '../../markings/kinds/string.ts';
import type { Score } from '../../score/model.ts';
import type { Stroke } from '../bow.ts';
import { fingerName, stringName } from '../left-hand.ts';
import { mainAttack, topOf, type Attack } from '../player-line.ts';
import type { Technique } from '../technique.ts';
import { mark, type LyingMark, type OtherWay } from './lying.ts';

/** Ways of a stroke that are told. */
export const WAYS = { hook: 'hooked', split: 'the slur in two', retake: 'set anew' };

/** Strokes and notes of another way that are told, at most. */
const MOST_TOLD = 8;

const more = (price: number): string => (price < 0.05 ? 'as good' : `costs ${price.toFixed(1)} more`);
const shortened = (words: readonly string[]): string => words.slice(0, MOST_TOLD).join(' ') + (words.length > MOST_TOLD ? ' …' : '');

/** What another bowing costs, in the words of players: "one retake in bar 6, one hook in bar 7". */
export function bowPrice(score: Score, attacks: readonly Attack[], strokes: readonly Stroke[], price: number): string {
  const bar = (s: Stroke): string => score.measures[attacks[s.from].notes[0].measure].number;
  const ways = strokes
    .filter((s) => s.way !== 'plain' && s.way !== 'lift')
    .map((s) => `one ${s.way === 'split' ? 'split slur' : s.way} in bar ${bar(s)}`);
  const wrong = strokes
    .filter((s) => s.costs.some((c) => c.name === 'up-bow on a downbeat'))
    .map((s) => `an up-bow on the downbeat of bar ${bar(s)}`);
  return [...ways, ...wrong].slice(0, 3).join(', ') || more(price);
}

/** Ways that are about as good, each with what is written when it is taken. */
export function waysOf(t: Technique): OtherWay[] {
  const { attacks, score } = t.line;
  const bar = (k: number): number => attacks[k].notes[0].measure;
  const place = (k: number): string => `bar ${score.measures[bar(k)].number}`;
  const found: OtherWay[] = [];
  for (const a of t.bow?.alternatives ?? [])
    found.push({
      from: bar(a.from),
      to: bar(a.to),
      text: `Bow from ${place(a.from)}: ${shortened(a.strokes.map((s) => s.direction + (s.way in WAYS ? ` (${WAYS[s.way as keyof typeof WAYS]})` : '')))}`,
      price: bowPrice(score, attacks, a.strokes, a.price),
      marks: a.strokes.map((s) => mark('bowing', `${s.direction}-bow`, topOf(attacks[mainAttack(t.line, s.from)])))
    });
  const open = t.instrument.strings ?? [];
  for (const a of t.strings?.alternatives ?? []) {
    const marks: LyingMark[] = [];
    let string = -1;
    a.grips.forEach((grip, n) =>
      grip.forEach((p, h) => {
        const note = attacks[a.from + n].notes[h];
        if (!p || !note) return;
        marks.push(mark('fingering', fingerName(p.finger), note));
        if (p.string !== string && STRING_NAMES[p.string]) marks.push(mark('string', STRING_NAMES[p.string], note));
        string = p.string;
      })
    );
    found.push({
      from: bar(a.from),
      to: bar(a.to),
      text: `Left hand from ${place(a.from)}: ${shortened(a.grips.map((g) => g.flatMap((p) => (p ? [`${stringName(open, p.string)}${fingerName(p.finger)}`] : [])).join(' with ')))}`,
      price: more(a.price),
      marks
    });
  }
  for (const { line, fingering } of t.keyboard)
    for (const a of fingering.alternatives)
      found.push({
        from: line.attacks[a.from].notes[0].measure,
        to: line.attacks[a.to].notes[0].measure,
        text: `${fingering.hand === 'right' ? 'Right' : 'Left'} hand from bar ${score.measures[line.attacks[a.from].notes[0].measure].number}: ${shortened(a.grips.map((g) => g.map((f) => f || '–').join('+')))}`,
        price: more(a.price),
        marks: a.grips.flatMap((g, n) => {
          const { notes } = line.attacks[a.from + n];
          const outer = fingering.hand === 'right' ? g.length - 1 : 0;
          return g[outer] ? [mark('fingering', String(g[outer]), notes[outer])] : [];
        })
      });
  return found;
}
