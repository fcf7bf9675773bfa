import { cmp, eq, format } from '../score/fraction.ts';
import type { Note } from '../score/model.ts';
import { pitchName, staffStep } from '../score/pitch.ts';
import type { BarCollector } from './bar-collector.ts';
import { listed, momentOf, NOTHING } from './difference.ts';
import { pairUp } from './pair-up.ts';

/** "dotted quarter", "eighth": a note's value as it is written. */
const valueOf = (n: Note): string =>
  `${'dotted '.repeat(n.dots ?? 0)}${n.type ?? `${format(n.duration)} quarters`}${n.timeModification ? ` (${n.timeModification.actual}:${n.timeModification.normal})` : ''}`;

const sounding = (notes: readonly Note[]): Note[] =>
  notes
    .filter((n) => !n.rest && !n.grace)
    .sort((x, y) => x.staff - y.staff || cmp(x.onset, y.onset) || (x.pitch && y.pitch ? staffStep(x.pitch) - staffStep(y.pitch) : 0));

export const noteName = (n: Note): string => (n.pitch ? pitchName(n.pitch) : 'a note without pitch');
const samePitch = (x: Note, y: Note): boolean => noteName(x) === noteName(y);

/**
 * Notes and rhythm of one bar: what agrees is paired; notes at another height on the same moment differ as notes; all
 * that stands at other moments or with other lengths differs as the rhythm of the bar.
 */
export function collateNotes(ours: readonly Note[], theirs: readonly Note[], out: BarCollector): void {
  let left = sounding(ours);
  const right = sounding(theirs);
  const tied = (n: Note): string => (n.tie?.start ? 'tied on' : 'not tied');
  const rhythm: [Note | null, Note | null][] = [];
  left = pairUp(
    left,
    right,
    (x, y) => eq(x.onset, y.onset) && samePitch(x, y) && eq(x.duration, y.duration),
    (x, y) => {
      if (Boolean(x.tie?.start) !== Boolean(y.tie?.start))
        out.add('rhythm', x.onset, `${noteName(x)} ${tied(x)}`, `${noteName(y)} ${tied(y)}`, [x], [y], false);
    }
  );
  left = pairUp(
    left,
    right,
    (x, y) => eq(x.onset, y.onset) && x.staff === y.staff && eq(x.duration, y.duration),
    (x, y) => out.add('notes', x.onset, noteName(x), noteName(y), [x], [y])
  );
  left = pairUp(
    left,
    right,
    (x, y) => samePitch(x, y) && x.staff === y.staff,
    (x, y) => rhythm.push([x, y])
  );
  left = pairUp(
    left,
    right,
    (x, y) => eq(x.onset, y.onset) && x.staff === y.staff,
    (x, y) => rhythm.push([x, y])
  );
  const ends = (list: readonly Note[]): Set<string> => new Set(list.map((n) => momentOf(n.onset)));
  // A note that one source has beside others at a moment that both know is a note more or less; the rest is rhythm.
  const moments = { ours: ends(sounding(ours)), theirs: ends(sounding(theirs)) };
  for (const x of left) {
    if (!rhythm.length && moments.theirs.has(momentOf(x.onset))) out.add('notes', x.onset, noteName(x), NOTHING, [x], [], true);
    else rhythm.push([x, null]);
  }
  for (const y of right) {
    if (!rhythm.length && moments.ours.has(momentOf(y.onset))) out.add('notes', y.onset, NOTHING, noteName(y), [], [y], true);
    else rhythm.push([null, y]);
  }
  if (rhythm.length) {
    const mine = rhythm.flatMap(([x]) => (x ? [x] : []));
    const other = rhythm.flatMap(([, y]) => (y ? [y] : []));
    const first = [...mine, ...other].map((n) => n.onset).sort(cmp)[0];
    const says = (list: readonly Note[]): string =>
      listed([...list].sort((p, q) => cmp(p.onset, q.onset)).map((n) => `${noteName(n)} ${valueOf(n)}`));
    out.add('rhythm', first, says(mine), says(other), mine, other);
  }
}
