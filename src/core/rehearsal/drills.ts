import type { Study } from '../analysis/study.ts';
import type { Technique } from '../technique/technique.ts';
import type { Reading } from '../reading/reading.ts';
import { difficultyOf, hotSpots, judgedDifficulty } from './difficulty.ts';
import { clefOf } from '../edition/small-staff.ts';
import type { Score } from '../score/model.ts';
import { tempoMarks } from '../score/tempo.ts';
import { measureAt } from '../score/position.ts';
import {
  CONTROLS_OF,
  DRILL_CONTROLS,
  DRILLS,
  DRILL_KINDS,
  type DrillControl,
  DRILL_WEIGHTS as W,
  STARTS,
  type DrillKind
} from '../style/drills.ts';
import { nearestOnScale } from '../style/tempo-words.ts';
import { suggestedTempo } from '../survey/tempo.ts';
import { FALLBACK_TEMPO } from '../performance/playable-score.ts';
import { materialOf, struck, type DrillBar, type DrillSound } from './material.ts';
import { whole } from './whole.ts';
import { drillDocument, Unwritable } from './write.ts';
import type { Drill, DrillContext, DrillSettings } from './context.ts';
import { MAKERS } from './makers.ts';

/** The tempo of the page in quarters a minute: its first number, else what its words are usually, else a walking pace. */
export function tempoOf(score: Score): number {
  const [mark] = tempoMarks(score);
  const range = mark ?? suggestedTempo(score);
  return range ? (range.low + range.high) / 2 : FALLBACK_TEMPO;
}

/** Passages of a context that were taken apart already: each is looked at by all kinds. */
const TAKEN = new WeakMap<DrillContext, Map<string, { staff: number; bars: DrillBar[]; sounds: DrillSound[] }>>();

function passage(c: DrillContext, from: number, to: number): { staff: number; bars: DrillBar[]; sounds: DrillSound[] } {
  const known = TAKEN.get(c) ?? new Map();
  TAKEN.set(c, known);
  const name = `${from}-${to}`;
  const found = known.get(name);
  if (found) return found;
  const { score } = c.study;
  const upper = materialOf(score, c.part, 1, from, to);
  const staff = struck(upper).length || score.parts[c.part].staves === 1 ? 1 : 2;
  const bars = staff === 1 ? upper : materialOf(score, c.part, staff, from, to);
  const made = { staff, bars, sounds: struck(bars) };
  known.set(name, made);
  return made;
}

/** What is set in a kind of drill, between its ends; what is usual where nothing is. @param inThrees the beat divides in three */
export function settingsFor(kind: DrillKind, set: Partial<DrillSettings>, inThrees: boolean): DrillSettings {
  const own = CONTROLS_OF[kind] ?? {};
  const value = (control: DrillControl): number => {
    const { least, most } = DRILL_CONTROLS[control];
    const usual = control === 'group' && inThrees ? 3 : DRILL_CONTROLS[control].usual;
    const offered = own[control];
    const wanted = offered === undefined ? usual : (set[control] ?? (offered === true ? usual : offered));
    return Math.max(least, Math.min(most, Math.round(wanted)));
  };
  return { unit: value('unit'), repeats: value('repeats'), group: value('group'), slur: value('slur') };
}

/** What one kind makes of some bars, as a score; null where the bars give no reason for it, or its values cannot be written. */
export function makeDrill(c: DrillContext, kind: DrillKind, from: number, to: number, set: Partial<DrillSettings> = {}): Drill | null {
  const { score } = c.study;
  const { staff, bars, sounds } = passage(c, from, to);
  if (!sounds.length) return null;
  const settings = settingsFor(kind, set, bars[0].beat.n % 3 === 0);
  const made = MAKERS[kind](c, { from, to, bars, sounds }, settings);
  if (!made) return null;
  const goal = nearestOnScale(tempoOf(score));
  const hard = Math.max(0, ...c.difficulty.slice(from, to + 1).map((b) => b.value));
  const start = nearestOnScale(goal * (STARTS.easy - (STARTS.easy - STARTS.hard) * hard));
  const part = score.parts[c.part];
  const names = from === to ? `bar ${score.measures[from].number}` : `bars ${score.measures[from].number}–${score.measures[to].number}`;
  try {
    const head = { title: `${DRILLS[kind].name}, ${names}`, name: part.name, transpose: part.transpose.chromatic, tempo: start };
    const document =
      'document' in made
        ? made.document(head)
        : drillDocument({ ...head, clef: clefOf(score, c.part, from, staff), bars: whole(made.bars) });
    return {
      kind,
      from,
      to,
      because: made.because,
      how: DRILLS[kind].how,
      tempo: { start: Math.min(start, goal), goal },
      document,
      settings
    };
  } catch (error) {
    if (error instanceof Unwritable || error instanceof RangeError) return null;
    throw error;
  }
}

/** Passages that are looked at: hard places first, then phrases; none longer than can be practised at once. */
export function passagesOf(c: DrillContext, from: number, to: number): { from: number; to: number }[] {
  const cut = (a: number, b: number): { from: number; to: number } => ({
    from: Math.max(a, from),
    to: Math.min(b, to, Math.max(a, from) + W.mostBars - 1)
  });
  const spots = [...c.spots].sort((a, b) => b.value - a.value).map((s) => cut(s.from, s.to));
  const sequences = c.study.facts.sequences.map((s) =>
    cut(measureAt(c.study.score, s.start).index, measureAt(c.study.score, s.last).index)
  );
  const parallels = c.study.facts.parallels
    .filter((p) => p.shift.n !== 0)
    .map((p) => cut(measureAt(c.study.score, p.b.start).index, measureAt(c.study.score, p.b.last).index));
  const phrases = c.study.facts.phrases.map((p) => cut(measureAt(c.study.score, p.start).index, measureAt(c.study.score, p.last).index));
  const rest = [];
  for (let k = from; k <= to; k += W.mostBars) rest.push(cut(k, k + W.mostBars - 1));
  const seen = new Set<string>();
  return [...spots, ...sequences, ...parallels, ...phrases, ...rest].filter((p) => {
    const name = `${p.from}-${p.to}`;
    if (p.from > p.to || seen.has(name)) return false;
    seen.add(name);
    return true;
  });
}

/** Kinds whose material is of the whole piece: once is enough. */
const ONCE: ReadonlySet<DrillKind> = new Set(['scales-of-the-piece']);

/**
 * The drills that the facts give a reason for, the most useful first.
 * @param wanted one kind, of which all are made; null for the most useful of all kinds
 */
export function drillsOf(c: DrillContext, from: number, to: number, wanted: DrillKind | null = null): Drill[] {
  const passages = passagesOf(c, from, to);
  const found: Drill[] = [];
  for (const kind of wanted ? [wanted] : DRILL_KINDS) {
    let count = 0;
    const most = ONCE.has(kind) ? 1 : wanted ? W.most : W.ofAKind;
    for (const p of passages) {
      if (count >= most) break;
      // The same place in other bars says nothing new.
      if (found.some((d) => d.kind === kind && d.from <= p.to && d.to >= p.from)) continue;
      const drill = makeDrill(c, kind, p.from, p.to);
      if (drill) {
        found.push(ONCE.has(kind) ? { ...drill, from, to } : drill);
        count++;
      }
    }
  }
  const worth = (d: Drill): number => Math.max(...c.difficulty.slice(d.from, d.to + 1).map((b) => b.value));
  const ranked = found.map((d, k) => ({ d, k, first: !found.slice(0, k).some((o) => o.kind === d.kind) }));
  return ranked
    .sort((a, b) => Number(b.first) - Number(a.first) || worth(b.d) - worth(a.d) || a.k - b.k)
    .slice(0, W.most)
    .map(({ d }) => d);
}

/** Measures that begin behind a repeat or double bar: one does not go into them from the bar that is printed before. */
const wallsOf = ({ measures }: Score): Set<number> =>
  new Set(
    measures.flatMap((m, k) => {
      const before = measures[k - 1];
      return before && (m.repeatStart || before.repeatEnd || /^light-(light|heavy)$/.test(before.barline ?? '')) ? k : [];
    })
  );

/** All that drills of a part are made of. */
export function drillContext(study: Study, technique: Technique, part: number, judged: Reading['judged'] = {}): DrillContext {
  const measured = difficultyOf(study, technique);
  const difficulty = judgedDifficulty(measured, judged);
  const phraseStarts = new Set(study.facts.phrases.map((p) => measureAt(study.score, p.start).index));
  return { study, technique, part, difficulty, spots: hotSpots(measured, { phraseStarts, walls: wallsOf(study.score) }, judged) };
}
