import { cmp, lte, toNumber } from '../score/fraction.ts';
import { dynamicAt } from '../style/dynamics.ts';
import { finding, type Check, type ProofContext } from './finding.ts';

/** Level in force just before or at a moment. */
const levelAt = (p: ProofContext, at: { n: number; d: number }) => p.levels.findLast((l) => cmp(l.start, at) <= 0) ?? null;
/** The level that a hairpin leads to: the next mark within so many quarters after its end. */
const NEAR = 4;
const goalOf = (p: ProofContext, end: { n: number; d: number }) =>
  p.levels.find((l) => lte(end, l.start) && toNumber(l.start) - toNumber(end) <= NEAR) ?? null;
const loudest = (p: ProofContext): number => Math.max(-1, ...p.levels.map((l) => l.step));

const hairpinWithoutGoal: Check = (p) =>
  p.hairpins
    .filter((h) => !goalOf(p, h.end))
    .map((h) => {
      const from = levelAt(p, h.start)?.step ?? 4;
      const goal = dynamicAt(Math.max(2, Math.min(8, from + (h.up ? 1 : -1))));
      const end = p.rules.line.find((t) => lte(h.end, t.note.start));
      const marking = end && {
        kind: 'dynamic' as const,
        value: goal,
        part: p.reading.part,
        staff: end.note.staff,
        start: end.note.start,
        note: end.note.id,
        because: [{ text: `${p.rules.place(h.start)}: the hairpin needs a goal.` }]
      };
      return finding(
        'hairpin without goal',
        'question',
        h.start,
        `${p.rules.place(h.start)}: the ${h.up ? 'crescendo' : 'diminuendo'} does not say how far it goes`,
        `Give it a goal, such as ${goal}.`,
        marking
      );
    });

const noRoom: Check = (p) =>
  p.hairpins
    .filter((h) => h.up && (levelAt(p, h.start)?.step ?? -1) >= Math.max(7, loudest(p)))
    .map((h) =>
      finding(
        'no room for a crescendo',
        'contradiction',
        h.start,
        `${p.rules.place(h.start)}: ${levelAt(p, h.start)!.sign} is in force already, the loudest of the piece`,
        'Begin it softer, or take the level before it down.'
      )
    );

const alikeOnTheWay: Check = (p) => {
  const ups = p.hairpins.filter((h) => h.up).map((h) => ({ h, goal: goalOf(p, h.end) }));
  return ups.slice(1).flatMap(({ h, goal }, k) => {
    const before = ups[k];
    const near = toNumber(h.start) - toNumber(before.h.end) <= 16;
    return near && goal && before.goal && goal.step === before.goal.step && goal.step === loudest(p) && goal !== before.goal
      ? [
          finding(
            'successive hairpins alike',
            'risk',
            h.start,
            `${p.rules.place(h.start)}: this crescendo goes as far as the one in ${p.rules.place(before.h.start)}`,
            'Let the first go less far, so that they grow.'
          )
        ]
      : [];
  });
};

const twoPeaks: Check = (p) => {
  const most = loudest(p);
  if (most < 6) return [];
  const peaks = p.levels.filter((l, k) => l.step === most && (k === 0 || p.levels[k - 1].step !== most));
  return peaks
    .slice(1)
    .map((l) =>
      finding(
        'two peaks',
        'risk',
        l.start,
        `${p.rules.place(l.start)}: ${l.sign} again, as loud as in ${p.rules.place(peaks[0].start)}`,
        'Decide which of them is the peak, and keep the other a step below.'
      )
    );
};

const spentEarly: Check = (p) => {
  const most = loudest(p);
  const first = p.levels.find((l) => l.step === most);
  const total = toNumber(p.score.measures[p.score.measures.length - 1].start);
  if (!first || most < 6 || p.levels.length < 3 || toNumber(first.start) > total / 6 || p.levels.filter((l) => l.step === most).length > 1)
    return [];
  return [
    finding(
      'peak spent early',
      'risk',
      first.start,
      `${p.rules.place(first.start)}: the loudest mark of all stands near the beginning and does not come back`,
      'Keep some of it for the most important arrival.'
    )
  ];
};

const againstPrinted: Check = (p) =>
  p.reading.markings.flatMap((m) => {
    if (m.part !== p.reading.part || m.because.some((b) => !b.rule)) return [];
    if (m.kind === 'dynamic') {
      const printed = p.levels.find((l) => !l.editorial && cmp(l.start, m.start) === 0 && l.sign !== m.value);
      return printed
        ? [
            finding(
              'editorial against printed',
              'contradiction',
              m.start,
              `${p.rules.place(m.start)}: [${m.value}] stands where ${printed.sign} is printed`,
              'Write down why, or take it away.'
            )
          ]
        : [];
    }
    if (m.kind === 'hairpin' && m.end) {
      const printed = p.hairpins.find(
        (h) => !h.editorial && h.up !== (m.value === 'crescendo') && cmp(h.start, m.end!) < 0 && cmp(h.end, m.start) > 0
      );
      return printed
        ? [
            finding(
              'editorial against printed',
              'contradiction',
              m.start,
              `${p.rules.place(m.start)}: a ${m.value} against the printed hairpin`,
              'Write down why, or take it away.'
            )
          ]
        : [];
    }
    return [];
  });

const noDynamicInForce: Check = (p) => {
  const first = p.rules.line[0];
  if (!first || p.rules.profile.opening === null || levelAt(p, first.note.start)) return [];
  return [
    finding(
      'no dynamic in force',
      'question',
      first.note.start,
      `${p.rules.place(first.note.start)}: nothing says how loud it begins`,
      `Set one, such as ${p.rules.profile.opening}.`,
      {
        kind: 'dynamic',
        value: p.rules.profile.opening,
        part: p.reading.part,
        staff: first.note.staff,
        start: first.note.start,
        note: first.note.id,
        because: [{ text: 'Nothing printed says how loud it begins.' }]
      }
    )
  ];
};

const repetitionsAlike: Check = (p) =>
  p.details.gestures
    .filter((g) => g.kind === 'three times')
    .flatMap((g) => {
      const inside = [...p.levels.map((l) => l.start), ...p.hairpins.map((h) => h.start), ...p.reading.markings.map((m) => m.start)].some(
        (t) => cmp(t, g.start) > 0 && cmp(t, g.end) < 0
      );
      return inside || p.rules.schools['third-time'] === 'same'
        ? []
        : [
            finding(
              'repetitions all alike',
              'risk',
              g.start,
              `${p.rules.place(g.start)}: ${g.evidence}, and nothing changes`,
              'Let the third time be different, or say that sameness is meant.'
            )
          ];
    });

const resolutionLouder: Check = (p) => {
  const roles = new Map(p.details.roles.map((r) => [r.note, r.role]));
  const { line } = p.rules;
  return line.slice(1).flatMap((t, k) => {
    const role = roles.get(line[k].note.id);
    if (role !== 'appoggiatura' && role !== 'suspension') return [];
    const loud = p.reading.markings.some(
      (m) => m.note === t.note.id && (m.kind === 'accent' || (m.kind === 'articulation' && m.value === 'tenuto'))
    );
    return loud
      ? [
          finding(
            'resolution louder than its dissonance',
            'contradiction',
            t.note.start,
            `${p.rules.place(t.note.start, true)}: the resolution is stressed`,
            'Stress the dissonance before it instead.'
          )
        ]
      : [];
  });
};

/** Checks of the dynamic plan. */
export const LOUDNESS: readonly Check[] = [
  hairpinWithoutGoal,
  noRoom,
  alikeOnTheWay,
  twoPeaks,
  spentEarly,
  againstPrinted,
  noDynamicInForce,
  repetitionsAlike,
  resolutionLouder
];
