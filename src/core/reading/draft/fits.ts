import { againstPrinted } from '../../markings/describe.ts';
import { add, toNumber } from '../../score/fraction.ts';
import type { Score } from '../../score/model.ts';
import { measureAt } from '../../score/position.ts';
import { tempoInForce } from '../../score/tempo.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { DRAFT, TEMPO_UNKNOWN } from '../../style/draft-weights.ts';
import type { Proposal } from '../proposal.ts';
import type { PartPage, Stretch } from './part-page.ts';

type Mark = Proposal['marking'];
type Check = (m: Mark, page: PartPage, score: Score) => boolean;

/** Kinds of which a note has one at most. */
const ON_A_NOTE: readonly Mark['kind'][] = ['articulation', 'accent', 'breath', 'comma', 'fermata', 'bowing'];

const meet = (a: Stretch, b: Stretch): boolean => a.from < b.to && b.from < a.to;
const stretchOf = (m: Mark): Stretch => ({ from: toNumber(m.start), to: toNumber(m.end ?? m.start) });

/** A level changes what is in force, far enough from the marks around it, where nothing grows or fades, and where the part sounds. */
const dynamicFits: Check = (m, page) => {
  const at = toNumber(m.start);
  const step = dynamicStep(m.value);
  const before = page.levelAt(at);
  const next = page.nextLevel(at);
  if (step === null || before?.at === at || before?.step === step) return false;
  if (before && at - before.at < DRAFT.apart.levels) return false;
  if (next && (next.at - at < DRAFT.apart.levels || next.step === step)) return false;
  return !page.signs.hairpins.some((h) => h.from < at && at < h.to) && page.notesAt(at).some((n) => !n.rest);
};

/** A hairpin is long enough to be heard, lies over notes, meets no other and no level on its way, and agrees with the level at its goal. */
const hairpinFits: Check = (m, page, score) => {
  const own = stretchOf(m);
  const tempo = tempoInForce(score, m.start) ?? TEMPO_UNKNOWN;
  const length = own.to - own.from;
  const bar = toNumber(measureAt(score, m.start).length);
  if (length < DRAFT.hairpin.quarters || (length * 60) / tempo < DRAFT.hairpin.seconds || length > DRAFT.hairpin.bars * bar) return false;
  if (!page.sounds(own)) return false;
  const up = m.value === 'crescendo';
  const { levels, hairpins } = page.signs;
  // One that goes the other way may follow at once: up to the goal and away from it.
  const near = (h: Stretch & { up: boolean }): boolean => {
    const apart = h.up === up ? DRAFT.apart.hairpins : 0;
    return meet({ from: own.from - apart, to: own.to + apart }, h);
  };
  if (hairpins.some(near)) return false;
  if (levels.some((l) => l.at > own.from && l.at < own.to)) return false;
  const start = page.levelAt(own.from);
  const goal = page.nextLevel(own.to - 1e-6);
  if (goal && start && goal.at - own.to <= bar && (up ? goal.step <= start.step : goal.step >= start.step)) return false;
  // Already as soft or as loud as it gets.
  return !start || (up ? start.step < DRAFT.levels.loudest : start.step > DRAFT.levels.softest);
};

/** A slur meets no other in part, lies over no rest and no dots, over no breath, and no longer than a bow or breath. */
const slurFits: Check = (m, page, score) => {
  const own = stretchOf(m);
  if (page.signs.slurs.some((s) => s.from <= own.to && own.from <= s.to)) return false;
  if (own.to - own.from > DRAFT.slur.bars * toNumber(measureAt(score, m.start).length)) return false;
  const last = page.notesAt(own.to).find((n) => n.id === m.endNote);
  if (!last || !page.sounds({ from: own.from, to: toNumber(add(last.start, last.duration)) })) return false;
  return !page
    .within(own)
    .some(({ note }) => note.marks?.some((x) => /staccat|breath|caesura/.test(x.name) || x.group === 'fermata') || parts(note.id, page));
};

/** A chosen breath or comma stands on the note. */
const parts = (id: string, page: PartPage): boolean => page.signs.marked.has(`${id} breath`);

/** A breath or comma parts no slur, tie or word, and stands where no rest gives time anyway. */
const breathFits: Check = (m, page) => {
  const at = toNumber(m.start);
  const here = page.notesAt(at);
  const note = here.find((n) => n.id === m.note);
  if (!note || page.signs.slurs.some((s) => s.from <= at && s.to > at)) return false;
  if (here.some((n) => n.tie?.start || n.lyrics?.some((l) => l.syllabic === 'begin' || l.syllabic === 'middle'))) return false;
  // Where a rest follows in its staff there is time anyway.
  return page.notesAt(toNumber(add(note.start, note.duration))).some((n) => !n.rest && n.staff === note.staff);
};

/** A dot on a note inside a slur asks for another touch than is meant. */
const againstSlur = (m: Mark, page: PartPage): boolean =>
  m.value === 'staccato' && page.signs.slurs.some((s) => s.from <= toNumber(m.start) && toNumber(m.start) <= s.to);

const noteFits: Check = (m, page) => m.note !== undefined && !page.signs.marked.has(m.note) && !againstSlur(m, page);

/** Words stand in a bar that has no others. */
const alone: Check = (m, page, score) => {
  const measure = measureAt(score, m.start);
  const from = toNumber(measure.start);
  const to = from + toNumber(measure.length);
  return !page.signs.words.some((at) => at >= from && at < to);
};

/** The same words are said once; those on time where they are asked for again. */
const wordsFit: Check = (m, page, score) => alone(m, page, score) && !page.signs.values.has(`${m.kind} ${m.value}`);

const CHECKS: Partial<Record<Mark['kind'], Check>> = {
  dynamic: dynamicFits,
  hairpin: hairpinFits,
  slur: slurFits,
  breath: breathFits,
  comma: breathFits,
  text: wordsFit,
  tempo: alone,
  metronome: alone
};

/** True when a mark may be added to what stands on its part's page. */
export function fits(m: Mark, page: PartPage, score: Score): boolean {
  const measure = measureAt(score, m.start).index;
  if ((page.signs.chosen.get(measure) ?? 0) >= DRAFT.inABar || againstPrinted(score, m)) return false;
  if (ON_A_NOTE.includes(m.kind) && !noteFits(m, page, score)) return false;
  return CHECKS[m.kind]?.(m, page, score) ?? true;
}
