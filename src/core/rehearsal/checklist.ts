import { isSyncopated } from '../score/meter.ts';
import { pitchName } from '../score/pitch.ts';
import { barList, measureAt } from '../score/position.ts';
import { keyAlter } from '../score/accidentals.ts';
import type { Study } from '../analysis/study.ts';
import { inSigns } from '../analysis/words.ts';
import type { Marking } from '../markings/marking.ts';
import { CHARACTER } from '../reading/rules/character.ts';
import { dynamicLevels } from '../reading/in-force.ts';
import { listed } from '../sentences.ts';
import { distinct } from '../distinct.ts';
import { can } from '../style/instruments/instrument.ts';
import { CHECKS, PRACTICE as P, type CheckKind } from '../style/practice.ts';
import { DRILL_WEIGHTS as W } from '../style/drills.ts';
import { height, lasts, topOf } from '../technique/player-line.ts';
import type { Technique } from '../technique/technique.ts';

/** What a section is looked over for, made from what is in it. */
export interface DraftedSection {
  title: string;
  checks: { kind: CheckKind; text: string }[];
}

/** A checklist for each section of a part. Handbook 21.4. @param markings those of the reading */
export function checklistOf(study: Study, t: Technique, part: number, markings: readonly Marking[]): DraftedSection[] {
  const { score, facts } = study;
  const stretches = facts.sections.length
    ? facts.sections.map((s) => ({ name: `Section ${s.label}`, from: measureAt(score, s.start).index, to: measureAt(score, s.last).index }))
    : [{ name: 'The piece', from: 0, to: score.measures.length - 1 }];
  return stretches
    .map(({ name, from, to }) => ({
      title: `${name}, ${barList(
        score.measures,
        Array.from({ length: to - from + 1 }, (_, k) => from + k)
      )}`,
      checks: checksIn(study, t, part, markings, from, to)
    }))
    .filter((s) => s.checks.length);
}

function checksIn(
  study: Study,
  t: Technique,
  part: number,
  markings: readonly Marking[],
  from: number,
  to: number
): DraftedSection['checks'] {
  const { score } = study;
  const inside = (measure: number): boolean => measure >= from && measure <= to;
  const at = t.line.attacks.map((a, k) => ({ a, k, measure: a.notes[0].measure })).filter((x) => inside(x.measure) && !x.a.grace);
  if (!at.length) return [];
  const found: DraftedSection['checks'] = [];
  const add = (kind: CheckKind, what: string): void => void found.push({ kind, text: `${CHECKS[kind]}: ${what}` });
  const where = (bars: readonly number[]): string => {
    const own = distinct(
      [...bars].sort((a, b) => a - b),
      String
    );
    return own.length > P.checkBars ? `throughout (${own.length} bars)` : barList(score.measures, own);
  };
  const notes = score.notes.filter((n) => n.part === part && inside(n.measure) && !n.rest && !n.grace);
  const editorial = markings.filter((m) => m.part === part && inside(measureAt(score, m.start).index));

  if (can(t.instrument, 'bows', 'breathes', 'sings') && !can(t.instrument, 'keys')) {
    const top = at.reduce((x, y) => (height(topOf(y.a)) > height(topOf(x.a)) ? y : x));
    const altered = notes.filter((n) => n.pitch && n.pitch.alter !== keyAlter(score.measures[n.measure].key, n.pitch.step));
    const also = altered.length ? `; the altered notes, ${where(altered.map((n) => n.measure))}` : '';
    const tops = at.filter(({ a }) => height(topOf(a)) === height(topOf(top.a))).map((x) => x.measure);
    add('intonation', `the top note ${inSigns(pitchName(topOf(top.a).pitch!))}, ${where(tops)}${also}`);
  }
  const late = at.filter(({ a, measure }) => isSyncopated(score.measures[measure], a.notes[0].onset, a.notes[0].duration));
  const against = notes.filter((n) => n.timeModification);
  if (against.length) add('rhythm', `the groups against the beat, ${where(against.map((n) => n.measure))}`);
  else if (late.length) add('rhythm', `notes held over the beat, ${where(late.map((x) => x.measure))}`);
  const touched = [
    ...notes.filter((n) => n.marks?.some((m) => /staccat|tenuto|accent/.test(m.name))).map((n) => n.measure),
    ...editorial.filter((m) => m.kind === 'articulation' || m.kind === 'accent').map((m) => measureAt(score, m.start).index)
  ];
  if (touched.length) add('articulation', `every dot, line and accent is heard, ${where(touched)}`);
  const levels = dynamicLevels(score, markings).filter((l) => l.part === part && inside(measureAt(score, l.start).index));
  if (levels.length) {
    const signs = distinct(levels, (l) => l.sign).slice(0, P.checkBars);
    const told = signs.length > 1 ? `${listed(signs.map((l) => l.sign))} are heard apart` : `${signs[0].sign} from its first note`;
    add('dynamics', `${told}, ${where(levels.map((l) => measureAt(score, l.start).index))}`);
  }
  const long = at.filter(({ a }) => lasts(a) >= W.longSeconds);
  if (long.length && can(t.instrument, 'holds', 'sings')) add('tone', `long notes live to their end, ${where(long.map((x) => x.measure))}`);
  if (t.strings && can(t.instrument, 'bows')) {
    const shifts = at.filter(({ k }) => t.strings!.costs[k].some((c) => c.name === 'shift'));
    if (shifts.length) add('hand', `the shifts are not heard, ${where(shifts.map((x) => x.measure))}`);
  }
  if (t.bow) {
    const crossings = (t.strings?.crossings ?? []).map((c) => t.line.attacks[c.at].notes[0].measure).filter(inside);
    if (crossings.length) add('bow', `over a string without a bump, ${where(crossings)}`);
  }
  const breaths = (t.breath?.breaths ?? []).map((b) => t.line.attacks[b.at].notes[0].measure).filter(inside);
  if (breaths.length) add('breath', `breaths only where they are planned, ${where(breaths)}`);
  const graces = score.notes.filter((n) => n.part === part && inside(n.measure) && n.grace).map((n) => n.measure);
  const signs = notes.filter((n) => n.marks?.some((m) => /trill|turn|mordent/.test(m.name))).map((n) => n.measure);
  if (graces.length + signs.length) add('ornaments', `each one complete and in its time, ${where([...graces, ...signs])}`);
  const character = editorial.filter((m) => m.because.some((b) => CHARACTER.some((rule) => rule.id === b.rule))).map((m) => m.value);
  if (character.length)
    add(
      'character',
      distinct(character, (x) => x)
        .slice(0, P.checkWords)
        .join('; ')
    );
  if (!found.length) add('rhythm', 'steady from the first bar to the last');
  return found;
}
