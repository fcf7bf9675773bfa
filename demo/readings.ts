/**
 * The readings of the demo studio: what its teachers have decided about its pieces in the week before the
 * autumn jury. Some questions are left open and some findings are left to be seen.
 */
import { draftId, type Drafted } from '../src/core/reading/draft/draft.ts';
import type { DifferenceKind } from '../src/core/collation/difference.ts';
import type { Command } from '../src/core/reading/commands/index.ts';
import type { LyingMark } from '../src/core/technique/told/lying.ts';
import type { Marking } from '../src/core/markings/marking.ts';
import type { Proposal } from '../src/core/reading/proposal.ts';
import { add, cmp, fromNumber } from '../src/core/score/fraction.ts';
import type { Score } from '../src/core/score/model.ts';
import { measureAt } from '../src/core/score/position.ts';
import type { Period } from '../src/core/style/profiles.ts';
import { LATER_READINGS } from './later-readings.ts';
import type { SchoolKey } from '../src/core/style/schools.ts';

type LyingKind = 'bowing' | 'fingering' | 'string' | 'breath' | 'sticking';

export interface DemoReading {
  file: string;
  /** Whom it is for, by key. */
  player: string;
  period: Period;
  /** Questions answered, with the day; those not named stay open. */
  answers: [SchoolKey, string, string][];
  postponed: SchoolKey[];
  /** Proposals kept beside those of the draft: by rule, or by rule in some bars ("rule: 3 11"). */
  kept: string[];
  aside: string[];
  /** Markings by the teacher's own hand: kind, value, bar, beat (from 1, in quarters, halves for what is between), reason, word to the player. */
  own: { kind: Marking['kind']; value: string; bar: string; beat: number; because: string; remark?: string }[];
  briefs: { from: string; to: string; text: string }[];
  /** Bar of the peak. */
  peak: string;
  requested?: { low: number; high: number };
  accepted: [kind: string, because: string][];
  /** What lies there and is written in: kind, from bar, to bar. */
  lies: [kind: LyingKind, from: string, to: string][];
  /** A second source, and what was decided where it differs: kind and bar of the difference. */
  compared?: {
    file: string;
    name: string;
    choices: { kind: DifferenceKind; bar: string; take: 'ours' | 'theirs'; because: string; on: string }[];
  };
}

export const DEMO_READINGS: DemoReading[] = [
  {
    file: 'etude.abc',
    player: 'nora',
    period: 'romantic',
    answers: [
      ['rubato', 'arch', '2026-10-05'],
      ['return', 'steal-in', '2026-10-05'],
      ['text', 'as-printed', '2026-10-05']
    ],
    postponed: ['plan'],
    kept: [
      'grow-from-hairpin-to-hairpin',
      'accidental-of-the-turn',
      'group-the-cadenza',
      'read-the-cadenza-as-slowing',
      'the-turn-comes-late',
      'die-away-to-nothing',
      'die-away-in-both',
      'how-long-the-fermata: 18'
    ],
    aside: ['two-bars-as-one', 'fall-fades: 7', 'give-the-hairpin-a-goal'],
    own: [
      {
        kind: 'breath',
        value: 'breath',
        bar: '12',
        beat: 3,
        because: 'The line to the peak is long; the rest here is the last easy place before it.',
        remark: 'A full, quick breath, without a new beginning.'
      },
      {
        kind: 'text',
        value: 'lantern, far off',
        bar: '1',
        beat: 1,
        because: 'Soft, low and minor: the light is seen before the harbour is.',
        remark: 'Tone without an edge; the first note is already moving.'
      }
    ],
    briefs: [
      {
        from: '13',
        to: '16',
        text: 'Everything before was on the way here. Breathe in bar 12, keep the f of bar 13 broad rather than hard, and let the allargando carry the sound up: the G of bar 16 is the one loudest note of the piece.\n\nPractise the four bars without the slurs, each note full, then with them; then from bar 16 backwards, one bar more each time.'
      }
    ],
    peak: '16',
    accepted: [],
    lies: [['breath', '1', '20']]
  },
  {
    file: 'andantino.abc',
    player: 'ivo',
    period: 'classical',
    answers: [
      ['trill-start', 'upper', '2026-10-12'],
      ['repeats', 'vary-dynamics', '2026-10-12'],
      ['slur-pairs', 'lift-second', '2026-10-12'],
      ['touch', 'detached', '2026-10-14']
    ],
    postponed: ['return'],
    kept: [
      'lift-the-second-of-a-pair: 1',
      'where-the-trill-begins',
      'ending-of-the-trill',
      'grow-from-hairpin-to-hairpin',
      'how-long-the-fermata',
      'one-peak'
    ],
    aside: ['two-bars-as-one', 'the-upbeat-leads-on'],
    own: [
      {
        kind: 'dynamic',
        value: 'p',
        bar: '17',
        beat: 1,
        because: 'The theme comes home; it need not be announced twice.',
        remark: 'Wait for the silence after the fermata, then begin as if nothing had happened.'
      },
      {
        kind: 'fingering',
        value: '3',
        bar: '13',
        beat: 1,
        because: 'The hand opens toward the B flat of bar 12 and lies well for the run of bar 15.'
      }
    ],
    briefs: [
      {
        from: '9',
        to: '16',
        text: 'The middle asks the question. Four plus four bars: the bass steps down under the tune (E, F, F sharp, G), and each step is a little warmer than the last. The poco rit. belongs to bar 15 alone.\n\nLeft hand by itself until its eighths are so even that you could sing over them.'
      }
    ],
    peak: '16',
    requested: { low: 80, high: 92 },
    accepted: [],
    lies: [['fingering', '1', '4']],
    compared: {
      file: 'andantino-fair-copy.abc',
      name: 'The fair copy in the school’s cupboard',
      choices: [
        {
          kind: 'rhythm',
          bar: '8',
          take: 'ours',
          because: 'The rest lets the left hand close the strain; the copy forgot it, as its left hand shows.',
          on: '2026-10-28'
        },
        {
          kind: 'notes',
          bar: '12',
          take: 'ours',
          because: 'The G is the goal of the climb through E, F and F sharp in the bass; the E would stand still.',
          on: '2026-10-28'
        },
        {
          kind: 'ornament',
          bar: '7',
          take: 'ours',
          because: 'The same cadence has its trill in bar 21 of both sources.',
          on: '2026-10-28'
        }
      ]
    }
  },
  {
    file: 'corrente.abc',
    player: 'lene',
    period: 'baroque',
    answers: [
      ['repeats', 'ornament', '2026-10-19'],
      ['trill-start', 'upper', '2026-10-19'],
      ['bowing', 'rule-of-downbow', '2026-10-19'],
      ['touch', 'half', '2026-10-21']
    ],
    postponed: ['suspect-notes'],
    kept: ['sequence-units-as-groups', 'where-the-trill-begins', 'ending-of-the-trill', 'decorate-the-repeat: 3 11'],
    aside: ['mark-the-displaced-theme', 'same-on-purpose', 'decorate-the-repeat: 1 16 18'],
    own: [
      {
        kind: 'text',
        value: 'bow stays low',
        bar: '5',
        beat: 1,
        because: 'The sequence changes strings in every bar; a low bow keeps the crossings small.',
        remark: 'From the wrist, not from the shoulder. If the arm tires, stop and shake it out.'
      }
    ],
    briefs: [
      {
        from: '5',
        to: '10',
        text: 'Three times two bars, each a step lower, through the circle of fifths. Play only the first note of each unit, down-bow, in tempo; then add its answer; then all. The slurred pair leans on its first note and lets go of the second.'
      }
    ],
    peak: '26',
    accepted: [['parallel places treated differently', 'The units of the first strain are spread; bar 23 hurries to the cadence.']],
    lies: [
      ['bowing', '1', '6'],
      ['fingering', '20', '24'],
      ['string', '20', '24']
    ]
  },
  ...LATER_READINGS
];

/** True when a list of rules names a proposal, by its rule or by rule and bar. */
function names(list: readonly string[], proposal: Proposal, bar: string): boolean {
  return list.some((entry) => {
    const [rule, bars] = entry.split(': ');
    return rule === proposal.rule && (!bars || bars.split(' ').includes(bar));
  });
}

/** The commands by which a demo reading comes about, from the proposals of its style. */
export function demoCommands(
  reading: DemoReading,
  score: Score,
  proposals: readonly Proposal[],
  draft: (standing: readonly Command[]) => readonly Drafted[],
  lying: (standing: readonly Command[]) => readonly LyingMark[]
): Command[] {
  const measure = (number: string) => score.measures.find((m) => m.number === number)!;
  const timeOf = (bar: string, beat: number) => add(measure(bar).start, fromNumber(beat - 1));
  const commands: Command[] = [
    ...reading.answers.map(([key, option, on]) => ({ type: 'answer-school' as const, key, option, on })),
    ...reading.postponed.map((key) => ({ type: 'postpone-question' as const, key, on: '2026-10-26' }))
  ];
  const barOf = (p: Proposal): string => measureAt(score, p.marking.start).number;
  for (const p of proposals) if (names(reading.aside, p, barOf(p))) commands.push({ type: 'set-aside', key: p.key });
  reading.own.forEach((o, k) => {
    const start = timeOf(o.bar, o.beat);
    const note = score.notes.find((n) => n.part === 0 && n.staff === 1 && !n.rest && !n.grace && cmp(n.start, start) >= 0)!;
    const marking: Marking = {
      id: `own-${k + 1}`,
      kind: o.kind,
      value: o.value,
      part: 0,
      staff: 1,
      start: note.start,
      note: note.id,
      because: [{ text: o.because }]
    };
    if (o.remark) marking.remark = o.remark;
    commands.push({ type: 'add-marking', marking });
  });
  for (const m of lying(commands)) {
    const { index } = score.measures[m.measure];
    const wanted = reading.lies.some(([kind, from, to]) => kind === m.kind && index >= measure(from).index && index <= measure(to).index);
    const taken = commands.some((c) => c.type === 'add-marking' && c.marking.kind === m.kind && c.marking.note === m.note);
    if (!wanted || taken || !m.needed) continue;
    const { kind, value, note, start, staff } = m;
    commands.push({
      type: 'add-marking',
      marking: {
        kind,
        value,
        note,
        start,
        staff,
        id: `lies-there-${commands.length}`,
        part: 0,
        because: [{ text: 'As it lies on the instrument.' }]
      }
    });
  }
  // What the teachers wrote themselves stands first; the draft fits it.
  const kept = draft(commands);
  if (kept.length) commands.push({ type: 'draft', kept: [...kept] });
  const drafted = new Set(kept.map((k) => k.key));
  for (const p of proposals)
    if (!drafted.has(p.key) && names(reading.kept, p, barOf(p)))
      commands.push({ type: 'keep', key: p.key, marking: { ...p.marking, id: draftId(p.key) } });
  for (const b of reading.briefs)
    commands.push({ type: 'write-brief', from: measure(b.from).index, to: measure(b.to).index, text: b.text });
  commands.push({ type: 'set-peak', measure: measure(reading.peak).index });
  if (reading.requested) commands.push({ type: 'request-tempo', range: reading.requested });
  return commands;
}
