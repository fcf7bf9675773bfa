import { GOAL_WITHIN, ALL_ACCENTED } from '../style/proof-weights.ts';
import { cmp, lte, toNumber } from '../score/fraction.ts';
import { againstPrinted, soundOf } from '../markings/describe.ts';
import { dynamicPlan } from '../reading/dynamic-plan.ts';
import { dynamicAt } from '../style/dynamics.ts';
import { finding, type Check, type ProofContext } from './finding.ts';

/** Level in force just before or at a moment. */
const levelAt = (p: ProofContext, at: { n: number; d: number }) => p.levels.findLast((l) => cmp(l.start, at) <= 0) ?? null;
const goalOf = (p: ProofContext, end: { n: number; d: number }) =>
  p.levels.find((l) => lte(end, l.start) && toNumber(l.start) - toNumber(end) <= GOAL_WITHIN) ?? null;
const loudest = (p: ProofContext): number => Math.max(-1, ...p.levels.map((l) => l.step));

/** A crescendo and the diminuendo that answers it at once: a swell, which returns to where it began. */
const isSwell = (p: ProofContext, k: number): boolean => {
  const h = p.hairpins[k];
  const other = p.hairpins[h.up ? k + 1 : k - 1];
  return (
    other !== undefined &&
    other.up !== h.up &&
    Math.abs(toNumber(h.up ? other.start : h.start) - toNumber(h.up ? h.end : other.end)) <= GOAL_WITHIN / 2
  );
};

/** Hairpins that rules made say in their reason how far they go. */
const saysHowFar = (p: ProofContext, id: string): boolean => p.reading.markings.some((m) => m.id === id && m.because.some((b) => b.rule));

const hairpinWithoutGoal: Check = (p) =>
  p.hairpins
    .filter((h, k) => !goalOf(p, h.end) && !isSwell(p, k) && !saysHowFar(p, h.id))
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

const editorialAgainstPrinted: Check = (p) =>
  p.reading.markings.flatMap((m) => {
    if (m.part !== p.reading.part || m.because.some((b) => !b.rule)) return [];
    const printed = againstPrinted(p.score, m);
    return printed
      ? [
          finding(
            'editorial against printed',
            'contradiction',
            m.start,
            `${p.rules.place(m.start)}: ${m.kind} [${m.value}], but ${printed}`,
            'Write down why, or take it away.'
          )
        ]
      : [];
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
    const loud = p.reading.markings.some((m) => m.note === t.note.id && soundOf(m).leans !== undefined);
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

/** Accents, printed and editorial, by note. */
const accented = (p: ProofContext): Set<string> =>
  new Set([
    ...p.rules.line.filter((t) => t.note.marks?.some((m) => /accent/.test(m.name))).map((t) => t.note.id),
    ...p.reading.markings.flatMap((m) => (m.kind === 'accent' && m.note ? [m.note] : []))
  ]);

const accentsAlike: Check = (p) => {
  const accents = accented(p);
  return p.score.measures.flatMap((m) => {
    const notes = p.rules.line.filter((t) => t.note.measure === m.index);
    return notes.length >= ALL_ACCENTED && notes.every((t) => accents.has(t.note.id))
      ? [
          finding(
            'accented and unaccented alike',
            'risk',
            m.start,
            `${p.rules.place(m.start)}: every note is accented, so none is`,
            'Keep the accents that the line needs; its neighbours stay down.'
          )
        ]
      : [];
  });
};

const sforzandoOutOfScale: Check = (p) => {
  if (p.rules.schools.sforzando !== 'absolute') return [];
  const signs = [
    ...p.score.directions.flatMap((d) => (d.kind === 'dynamic' && d.part === p.reading.part ? [{ sign: d.value, start: d.start }] : [])),
    ...p.reading.markings.flatMap((m) => {
      const { sign } = soundOf(m);
      return sign !== undefined && m.part === p.reading.part ? [{ sign, start: m.start }] : [];
    })
  ];
  return signs.flatMap(({ sign, start }) => {
    const level = /^(sf|sfz|fz|rf|rfz|sffz)$/.test(sign) ? levelAt(p, start) : null;
    return level && level.step <= 3
      ? [
          finding(
            'sforzando out of scale',
            'risk',
            start,
            `${p.rules.place(start)}: ${sign} taken absolutely stands ${6 - level.step} steps over the ${level.sign} around it`,
            'Here take it in context: a sting within the soft level.'
          )
        ]
      : [];
  });
};

const backgroundLouder: Check = (p) => {
  if ((p.score.parts[p.reading.part]?.staves ?? 1) < 2) return [];
  const below = new Set(p.details.gestures.filter((g) => g.kind === 'melody below').map((g) => g.measure));
  return p.levels
    .filter((l) => l.staff === 2)
    .flatMap((l) => {
      const tune = p.levels.findLast((o) => o.staff === 1 && cmp(o.start, l.start) <= 0);
      const measure = p.rules.bar(l.start).index;
      return tune && l.step > tune.step && !below.has(measure)
        ? [
            finding(
              'background louder than foreground',
              'contradiction',
              l.start,
              `${p.rules.place(l.start)}: the lower staff has ${l.sign} under ${tune.sign}, and the tune lies above`,
              'Take the accompaniment a step or two below the tune.'
            )
          ]
        : [];
    });
};

/** A peak that is told in words where the plan is not loudest. */
const peaksThatDisagree: Check = (p) => {
  const told = p.reading.markings.filter((m) => m.part === p.reading.part && m.value === 'peak');
  if (!told.length) return [];
  const { peak } = dynamicPlan(p.score, p.facts, p.reading);
  return told
    .filter((m) => p.rules.bar(m.start).index !== peak.measure)
    .map((m) =>
      finding(
        'peaks that disagree',
        'contradiction',
        m.start,
        `${p.rules.place(m.start)} is called the peak, and the plan is loudest in ${p.rules.place(p.score.measures[peak.measure].start)}`,
        'Set the peak of the plan here, or take the word away.'
      )
    );
};

/** Checks of the dynamic plan. */
export const LOUDNESS: readonly Check[] = [
  hairpinWithoutGoal,
  noRoom,
  alikeOnTheWay,
  twoPeaks,
  peaksThatDisagree,
  spentEarly,
  editorialAgainstPrinted,
  noDynamicInForce,
  repetitionsAlike,
  accentsAlike,
  sforzandoOutOfScale,
  backgroundLouder,
  resolutionLouder
];
