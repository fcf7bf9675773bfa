import { ZERO } from '../score/fraction.ts';
import type { Measure, Score } from '../score/model.ts';
import { barLabel } from '../score/position.ts';
import type { BarPair } from './align-bars.ts';
import type { BarCollector } from './bar-collector.ts';
import { NOTHING, type SourceDifference } from './difference.ts';

/** Bars that one of the sources lacks, runs of them as one difference. */
export function collateMissing(a: Score, b: Score, bars: readonly BarPair[], out: SourceDifference[]): void {
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

/** Signature of a part in a bar, in fifths as written. */
const signature = (score: Score, part: number, measure: number): number =>
  score.parts[part].changes.findLast((c) => c.keys && c.measure <= measure)?.keys![0].key.fifths ?? 0;

/** Meter, key and repeats where they change; the key is that of a part that both sources have. */
export function collateMeasures(a: Score, b: Score, i: number, j: number, part: number, out: BarCollector): void {
  const [x, y] = [a.measures[i], b.measures[j]];
  const [before, other] = [a.measures[i - 1], b.measures[j - 1]];
  const changes = <T>(ours: (m: Measure) => T, theirs: (m: Measure) => T): boolean =>
    ours(x) !== theirs(y) && !(before && other && ours(before) === ours(x) && theirs(other) === theirs(y));
  const meter = (m: Measure): string => m.time?.text ?? 'no meter';
  const key =
    (score: Score) =>
    (m: Measure): string => {
      const fifths = signature(score, part, m.index);
      return `${Math.abs(fifths)} ${fifths < 0 ? 'flats' : 'sharps'}`;
    };
  const [ours, theirs] = [key(a), key(b)];
  if (changes(meter, meter)) out.add('meter', ZERO, meter(x), meter(y), [], [], false);
  if (changes(ours, theirs)) out.add('key', ZERO, ours(x), theirs(y), [], [], false);
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
