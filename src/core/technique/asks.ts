import { GroupBuilder, plural, unique, type SurveyGroup } from '../survey/line.ts';
import { breathSeconds } from '../style/breath.ts';
import { BRASS_PRICES } from '../style/brass.ts';
import { listed } from '../sentences.ts';
import { longestWithoutRest, saveBefore } from './brass-slurs.ts';
import { tunesOf } from './pipe-set.ts';
import { ringing } from './left-hand.ts';
import { lasts } from './player-line.ts';
import type { Technique } from './technique.ts';

/** A line that would lead to more bars leads to none: it is everywhere. */
const MOST_BARS = 12;
/** Seconds of playing from which the lips want a rest. [M] */
const LONG_WORK = 40;

/** What a piece asks of its instrument: the first look at how it lies. */
export function asksOf(t: Technique): SurveyGroup {
  const group = new GroupBuilder(`What it asks of the ${t.instrument.name}`);
  const { attacks, score } = t.line;
  const barOf = (k: number): number => attacks[k].notes[0].measure;
  const add = (label: string, value: string, bars: number[]): void =>
    void group.add(label, value, unique(bars).length > MOST_BARS ? [] : bars);
  if (t.bow) {
    const { strokes } = t.bow;
    for (const [way, label] of [
      ['hook', 'hooked'],
      ['retake', 'set anew'],
      ['split', 'slurs in two']
    ] as const) {
      const found = strokes.filter((s) => s.way === way);
      if (found.length)
        add(
          `Bows ${label}`,
          `${found.length} of ${strokes.length} strokes`,
          found.map((s) => barOf(s.from))
        );
    }
    const longest = strokes.reduce((a, b) => (seconds(b) > seconds(a) ? b : a), strokes[0]);
    if (longest) add('Longest stroke', `${seconds(longest).toFixed(1)} s`, [barOf(longest.from)]);
  }
  function seconds(s: { from: number; to: number }): number {
    return attacks[s.to].to - attacks[s.from].from;
  }
  if (t.strings) {
    const high = t.strings.grips.flatMap((grip, k) => grip.flatMap((p) => (p?.finger ? [{ k, position: p.position }] : [])));
    const most = Math.max(0, ...high.map((h) => h.position));
    if (most)
      add(
        'Highest position',
        String(most),
        high.filter((h) => h.position === most).map((h) => barOf(h.k))
      );
    const shifts = t.strings.costs.flatMap((costs, k) => (costs.some((c) => c.name === 'shift') ? [k] : []));
    if (shifts.length) add('Shifts', plural(shifts.length, 'shift'), shifts.map(barOf));
    const { crossings } = t.strings;
    if (crossings.length) {
      const slurred = crossings.filter((c) => c.slurred).length;
      add(
        'Over a string',
        plural(crossings.length, 'crossing') + (slurred ? `, ${slurred} inside a slur` : ''),
        crossings.map((c) => barOf(c.at))
      );
    }
    const rings = ringing(t.line, t.instrument.strings ?? []);
    if (rings.length) add('Ring with a string', plural(rings.length, 'note'), rings.map(barOf));
    const stopped = t.strings.chords.filter((c) => c.possible).length;
    if (t.strings.chords.length)
      add(
        'Double stops and chords',
        `${stopped} of ${t.strings.chords.length} lie under the hand`,
        t.strings.chords.map((c) => barOf(c.at))
      );
  }
  if (t.chords.length) {
    const thought = t.chords.filter((c) => c.thought.length);
    add(
      'Broken chords under the bow',
      `${t.chords.length}${thought.length ? `, ${thought.length} of them longer than they can be held` : ''}`,
      t.chords.map((c) => barOf(c.at))
    );
  }
  if (t.wide.length) {
    const widest = t.wide.reduce((a, b) => (b.semitones > a.semitones ? b : a));
    add('Widest span', `${widest.semitones} semitones, ${widest.hand} hand`, [widest.attack.notes[0].measure]);
    const shared = t.wide.filter((w) => w.shared.length);
    if (shared.length)
      add(
        'Shared between the hands',
        plural(shared.length, 'chord'),
        shared.map((w) => w.attack.notes[0].measure)
      );
  }
  if (t.breath && attacks.length) {
    const { breaths } = t.breath;
    const stretches = breaths.map((b) => ({ at: b.at, seconds: b.secondsBefore }));
    const last = attacks.at(-1)!;
    stretches.push({ at: attacks.length - 1, seconds: last.to - attacks[breaths.at(-1)?.at ?? 0].from });
    const longest = stretches.reduce((a, b) => (b.seconds > a.seconds ? b : a));
    const has = t.player?.breath
      ? `${t.player.name} has about ${t.player.breath} s`
      : `about ${breathSeconds(t.instrument.key)} s are usual`;
    add('Longest on one breath', `${longest.seconds.toFixed(1)} s, where ${has}`, [barOf(longest.at)]);
    const quick = breaths.filter((b) => b.kind === 'quick');
    add(
      'Breaths',
      `${plural(breaths.length, 'breath')}, ${quick.length} of them quick`,
      quick.map((b) => barOf(b.at))
    );
  }
  if (t.winds?.awkward.length)
    add(
      'Awkward steps',
      plural(t.winds.awkward.length, 'step'),
      t.winds.awkward.map((a) => barOf(a.at))
    );
  if (t.load) {
    const peaks = t.load.flatMap((value, bar) => (value >= BRASS_PRICES.peak ? [bar] : []));
    add('Most for the lips', plural(peaks.length, 'bar'), peaks);
    const save = saveBefore(t.load);
    if (save)
      add(
        'Save before the last peak',
        'spare the lips there',
        Array.from({ length: save.to - save.from + 1 }, (_, k) => save.from + k)
      );
    const long = longestWithoutRest(t.line);
    if (long.seconds >= LONG_WORK) add('Longest without a rest', `${long.seconds.toFixed(0)} s`, [barOf(long.at)]);
  }
  if (t.instrument.key === 'pipes') {
    const tunes = tunesOf(score);
    if (tunes.length > 1)
      add(
        'Tunes in the set',
        `${tunes.length}${new Set(tunes.map((x) => x.meter)).size > 1 ? `, in ${listed([...new Set(tunes.map((x) => x.meter ?? 'free time'))])}` : ''}, repeats played in full`,
        tunes.map((x) => x.from)
      );
  }
  if (t.sticks) add('Mallets', attacks.some((a) => a.notes.length > 2) ? 'four' : 'two', []);
  for (const name of [...new Set(t.movements.map((m) => m.name))]) {
    const found = t.movements.filter((m) => m.name === name);
    add(
      name.replace('-', ' '),
      plural(found.length, 'time'),
      found.map((m) => barOf(m.at))
    );
  }
  const quickest = attacks.reduce((least, a) => (!a.grace && lasts(a) > 0 ? Math.min(least, lasts(a)) : least), Infinity);
  if (score.measures.length && quickest < Infinity && t.bow) add('Quickest notes', `${(1 / quickest).toFixed(1)} a second`, []);
  return group.group;
}
