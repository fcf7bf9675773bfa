import { dynamicLevels, handsOf, levelInForce } from '../reading/in-force.ts';
import { inWords, isPrinted, soundOf } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { outdated } from '../reading/claims/anew.ts';
import { groundOf } from '../reading/claims/claims.ts';
import { add, cmp, lt } from '../score/fraction.ts';
import { CROWDED } from '../style/proof-weights.ts';
import { finding, type Check } from './finding.ts';

/** The editorial marks of the part that are printed. */
const printedMarks = (p: Parameters<Check>[0]): Marking[] => p.reading.markings.filter((m) => m.part === p.reading.part && isPrinted(m));

/** A bar in which the editor says more than can be read while one plays. */
const crowdedBars: Check = (p) => {
  const own = printedMarks(p);
  return p.score.measures.flatMap((m) => {
    const end = add(m.start, m.length);
    const here = own.filter((x) => cmp(x.start, m.start) >= 0 && lt(x.start, end));
    return here.length > CROWDED
      ? [
          finding(
            'marks that crowd',
            'risk',
            m.start,
            `${p.rules.place(m.start)}: ${here.length} editorial marks in one bar`,
            'Keep what matters most here, or say once what holds for all.'
          )
        ]
      : [];
  });
};

/** Signs that ask for weight: two of them on one note say the same. */
const WEIGHT = /^(accent|strong-accent|tenuto|marcato)$/;

const saidTwice: Check = (p) => {
  const notes = new Map(p.score.notes.map((n) => [n.id, n]));
  const own = printedMarks(p).filter((m) => m.note !== undefined && WEIGHT.test(m.value));
  return own.flatMap((m, k) => {
    const other = own.slice(0, k).find((o) => o.note === m.note);
    const printed = notes.get(m.note!)?.marks?.find((x) => WEIGHT.test(x.name));
    const beside = other ? inWords(other) : printed ? `the printed ${printed.name.replace(/-/g, ' ')}` : null;
    return beside
      ? [
          finding(
            'weight asked for twice',
            'risk',
            m.start,
            `${p.rules.place(m.start, true)}: ${inWords(m)} beside ${beside}`,
            'One of them is enough.'
          )
        ]
      : [];
  });
};

/** A level that is in force already, where nothing has grown or faded since. */
const levelSaidAgain: Check = (p) =>
  p.levels.flatMap((l, k) => {
    const before = p.levels[k - 1];
    if (!l.editorial || !before || before.step !== l.step || before.staff !== l.staff) return [];
    const moved = p.hairpins.some((h) => cmp(h.end, before.start) > 0 && cmp(h.start, l.start) < 0);
    return moved
      ? []
      : [
          finding(
            'level in force already',
            'risk',
            l.start,
            `${p.rules.place(l.start, true)}: ${l.sign} holds since ${p.rules.place(before.start)}`,
            'Leave it out, or say what changes.'
          )
        ];
  });

/** A breath or comma inside a slur that the editor has drawn. */
const breathInOwnSlur: Check = (p) => {
  const own = printedMarks(p);
  const slurs = own.filter((m) => m.kind === 'slur' && m.end);
  return own.flatMap((m) => {
    if (m.kind !== 'breath' && m.kind !== 'comma') return [];
    const slur = slurs.find((s) => cmp(s.start, m.start) <= 0 && lt(m.start, s.end!));
    return slur
      ? [
          finding(
            'breath inside a slur',
            'contradiction',
            m.start,
            `${p.rules.place(m.start, true)}: the ${m.kind} stands inside the editorial slur from ${p.rules.place(slur.start, true)}`,
            'End the slur before it, or move it.'
          )
        ]
      : [];
  });
};

/** A hairpin with the staff of the hand that it is for; 1 is all of its part. */
type Swelling = Pick<Marking, 'part' | 'staff' | 'start'> & { up: boolean; end: Marking['start'] };

/** Printed and editorial hairpins of the whole score. */
function allHairpins({ score, reading }: Parameters<Check>[0]): Swelling[] {
  const hand = handsOf(score);
  return [
    ...score.hairpins.map((h) => ({ part: h.part, staff: hand(h), up: h.kind === 'crescendo', start: h.start, end: h.end })),
    ...reading.markings.flatMap((m) => {
      const { swell } = soundOf(m);
      return swell && m.end ? [{ part: m.part, staff: m.staff, up: swell > 0, start: m.start, end: m.end }] : [];
    })
  ];
}

/** An editorial hairpin that goes against one of another part, or of the other hand, at the same time. */
const partAgainstPart: Check = (p) => {
  const all = allHairpins(p);
  return printedMarks(p).flatMap((m) => {
    const { swell } = soundOf(m);
    if (!swell || !m.end) return [];
    const against = all.find(
      (h) => (h.part !== m.part || h.staff !== m.staff) && h.up !== swell > 0 && cmp(h.start, m.end!) < 0 && cmp(m.start, h.end) < 0
    );
    const whose = against && (against.part === m.part ? 'the other hand' : p.score.parts[against.part].name || 'another part');
    return whose
      ? [
          finding(
            'part against part',
            'question',
            m.start,
            `${p.rules.place(m.start, true)}: ${inWords(m)} while ${whose} ${against.up ? 'grows' : 'fades'}`,
            'Say that it is meant, or let both go one way.'
          )
        ]
      : [];
  });
};

/** A level of a part that accompanies, set by the editor over that of the part that has the tune. */
const overTheTune: Check = (p) => {
  if (p.score.parts.length < 2) return [];
  const all = dynamicLevels(p.score, p.reading.markings);
  return p.levels.flatMap((l) => {
    const tone = l.editorial ? p.rules.firstAt(l.start) : null;
    if (!tone || p.rules.hasTune(tone)) return [];
    const over = p.score.parts
      .filter((x) => x.index !== p.reading.part && p.hasTune(x.index, l.start))
      .map((x) => ({ name: x.name || 'the other part', level: levelInForce(all, x.index, l.start) }))
      .find((x) => x.level && x.level.step < l.step);
    return over
      ? [
          finding(
            'background louder than foreground',
            'risk',
            l.start,
            `${p.rules.place(l.start, true)}: ${l.sign} under the tune of ${over.name}, which has ${over.level!.sign}`,
            'Take the accompaniment a step or two below the tune.'
          )
        ]
      : [];
  });
};

/** A reason whose claim cannot be read back any more: a level, a chord, a phrase has changed since the marking was kept. */
const reasonGone: Check = (p) => {
  const ground = groundOf(p.score, p.facts, p.levels);
  return outdated(printedMarks(p), ground).map((m) =>
    finding(
      'reason that no longer holds',
      'question',
      m.start,
      `${p.rules.place(m.start, true)}: ${inWords(m)} was kept for a reason that is no longer there`,
      'Give it a reason of your own, or take it away.'
    )
  );
};

export const MARK_CHECKS: readonly Check[] = [
  crowdedBars,
  saidTwice,
  levelSaidAgain,
  breathInOwnSlur,
  partAgainstPart,
  overTheTune,
  reasonGone
];
