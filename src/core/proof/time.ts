import { ASSUMED_TEMPO } from '../style/survey-weights.ts';
import { EARLY_BARS, BREATH_SECONDS } from '../style/proof-weights.ts';
import { cmp, lt, lte, toNumber, type Fraction } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import { tempoInForce, tempoMarks } from '../score/tempo.ts';
import { clarityCeiling } from '../style/clarity.ts';
import { TRILL_RATE } from '../style/ornaments.ts';
import { onScaleBelow, setsATempo } from '../style/tempo-words.ts';
import { can } from '../style/instruments/instrument.ts';
import type { TimeAct } from '../style/terms/acts.ts';
import { hurries, slows, timeActIn } from '../style/terms/read-words.ts';
import { isInWords, soundOf } from '../markings/describe.ts';
import { metronomeMarkings } from '../reading/in-force.ts';
import { measureAt } from '../score/position.ts';
import { finding, type Check, type ProofContext } from './finding.ts';

/** Something that acts on time, printed or editorial: words, or a tempo in numbers, which ends what was under way. */
interface TimeSaid {
  text: string;
  start: Fraction;
  act: TimeAct;
}

const RESTORES: TimeAct = { kind: 'restore' };

/** What is said on time, in order. */
function timeSaid(p: ProofContext): TimeSaid[] {
  const classical = p.reading.period === 'classical';
  const words = (text: string, start: Fraction): TimeSaid[] => {
    const act = timeActIn(text, classical) ?? (setsATempo(text) ? RESTORES : null);
    return act ? [{ text, start, act }] : [];
  };
  const printed = p.score.directions.flatMap((d) => (d.kind === 'words' ? words(d.text, d.start) : []));
  const editorial = p.reading.markings.flatMap((m) => {
    const sound = soundOf(m);
    if (sound.tempo !== undefined) return [{ text: m.value, start: m.start, act: RESTORES }];
    return sound.words === undefined ? [] : words(sound.words, m.start);
  });
  const marks = tempoMarks(p.score).flatMap((m) => (m.printed ? [{ text: m.text, start: m.start, act: RESTORES }] : []));
  return [...printed, ...editorial, ...marks].sort((a, b) => cmp(a.start, b.start));
}

/** Ends what is under way: the tempo comes back, or another change begins. */
const endsIt = ({ act }: TimeSaid): boolean => act.kind === 'restore' || act.kind === 'same' || slows(act) || hurries(act);

/** Whether something later ends what the k-th word began; a number at the same moment is what it starts from. */
const isEnded = (said: readonly TimeSaid[], k: number): boolean =>
  said.slice(k + 1).some((x) => cmp(x.start, said[k].start) > 0 && endsIt(x));

/** Slows bit by bit or at once; another tempo that holds (meno mosso) is none of it. */
const slowsDown = ({ act }: TimeSaid): boolean => act.kind === 'slow' || act.kind === 'at once';

const lastBar = (p: ProofContext): Fraction => p.score.measures[Math.max(0, p.score.measures.length - 2)].start;

const notRestored: Check = (p) => {
  const words = timeSaid(p);
  return words.flatMap((w, k) => {
    if (!slowsDown(w) || lte(lastBar(p), w.start) || isEnded(words, k)) return [];
    const phrase = p.facts.phrases.find((f) => cmp(f.start, w.start) > 0);
    // What slows into the end need not be taken back.
    if (!phrase) return [];
    const tone = p.rules.line.find((t) => lte(phrase.start, t.note.start));
    return [
      finding(
        'tempo not restored',
        'contradiction',
        w.start,
        `${p.rules.place(w.start)}: after “${w.text}” nothing says that the tempo comes back`,
        'Say “a tempo” where it does.',
        tone && {
          kind: 'tempo',
          value: 'a tempo',
          part: p.reading.part,
          staff: tone.note.staff,
          start: tone.note.start,
          note: tone.note.id,
          because: [{ text: `“${w.text}” in ${p.rules.place(w.start)} is taken back here.` }]
        }
      )
    ];
  });
};

const tooEarly: Check = (p) =>
  timeSaid(p).flatMap((w) => {
    if (!slowsDown(w)) return [];
    const phrase = p.facts.phrases.find((f) => lte(f.start, w.start) && lt(w.start, f.end));
    if (!phrase) return [];
    const bars = p.rules.bar(phrase.last).index - p.rules.bar(w.start).index;
    return bars >= EARLY_BARS
      ? [
          finding(
            'ritardando too early',
            'risk',
            w.start,
            `${p.rules.place(w.start)}: “${w.text}” begins ${bars} bars before the phrase ends in ${p.rules.place(phrase.last)}`,
            'Begin it in the bar before the goal.'
          )
        ]
      : [];
  });

const outsideTheRequest: Check = (p) => {
  const { requested, markings } = p.reading;
  if (!requested) return [];
  // In beats of the meter, as the request is; a mark in another value counts by its length.
  const beatsAMinute = (tempo: number, start: Fraction): number => tempo / toNumber(beatOfMeter(measureAt(p.score, start)).beat);
  const own = metronomeMarkings(markings).map(({ tempo, start }) => ({ rate: beatsAMinute(tempo, start), start }));
  const printed = tempoMarks(p.score)
    .filter((m) => m.measure === 0)
    .map((m) => ({ rate: (m.low + m.high) / 2 / toNumber(beatOfMeter(p.score.measures[0]).beat), start: m.start }));
  // What the teacher has set outweighs what is printed.
  const first = own[0] ?? printed[0];
  return first && (first.rate < requested.low || first.rate > requested.high)
    ? [
        finding(
          'tempo outside the requested range',
          'contradiction',
          first.start,
          `${p.rules.place(first.start)}: ${Math.round(first.rate)} a minute, and ${requested.low} to ${requested.high} are asked for`,
          `Set a metronome mark between ${requested.low} and ${requested.high}.`
        )
      ]
    : [];
};

const decorationTooDense: Check = (p) => {
  const bars = new Map<number, number>();
  const added = p.reading.markings.filter((m) => isInWords(m) && /^2nd time|^second time/i.test(m.value));
  for (const m of added) bars.set(p.rules.bar(m.start).index, (bars.get(p.rules.bar(m.start).index) ?? 0) + 1);
  return [...bars]
    .filter(([, count]) => count > 1)
    .map(([measure, count]) => {
      const { start } = p.score.measures[measure];
      return finding(
        'decoration too dense',
        'risk',
        start,
        `${p.rules.place(start)}: ${count} decorations the second time`,
        'One in a bar at most, so that the line is still heard.'
      );
    });
};

const withoutEnd: Check = (p) => {
  const words = timeSaid(p);
  return words.flatMap((w, k) => {
    if (w.act.kind !== 'fast') return [];
    return isEnded(words, k)
      ? []
      : [
          finding(
            'accelerando without an end',
            'risk',
            w.start,
            `${p.rules.place(w.start)}: “${w.text}” does not say where it stops`,
            'Give it a goal: a tempo or a metronome mark.'
          )
        ];
  });
};

const onTopOfSlowing: Check = (p) =>
  p.details.rhythms
    .filter((r) => r.kind === 'written-out slowing')
    .flatMap((r) => {
      const word = timeSaid(p).find((w) => slowsDown(w) && lte(r.start, w.start) && lt(w.start, r.end));
      return word
        ? [
            finding(
              'ritardando on top of written-out slowing',
              'risk',
              word.start,
              `${p.rules.place(word.start)}: “${word.text}” where ${r.evidence}`,
              'Keep the beat: the notes slow by themselves.'
            )
          ]
        : [];
    });

const aboveTheCeiling: Check = (p) => {
  const dots = p.rules.line.filter((t) => t.note.marks?.some((m) => m.name === 'staccato'));
  const value = (t: (typeof dots)[number]): number => (t.end - t.start) / p.rules.sounding.ticksPerQuarter;
  const shortest = [...dots].sort((a, b) => value(a) - value(b))[0];
  if (!shortest) return [];
  const tempo = tempoInForce(p.score, shortest.note.start);
  const ceiling = clarityCeiling(value(shortest), 0.5);
  return tempo && tempo > ceiling
    ? [
        finding(
          'articulation above the clarity ceiling',
          'risk',
          shortest.note.start,
          `${p.rules.place(shortest.note.start)}: at ${Math.round(tempo)} a dotted note of this length is heard neither as sound nor as gap`,
          `Not above ${onScaleBelow(ceiling)}, or another share.`
        )
      ]
    : [];
};

const ornamentDoesNotFit: Check = (p) =>
  p.rules.line.flatMap((t) => {
    if (!t.note.marks?.some((m) => m.name === 'trill-mark')) return [];
    const tempo = tempoInForce(p.score, t.note.start);
    if (!tempo) return [];
    const seconds = (60 * (t.end - t.start)) / p.rules.sounding.ticksPerQuarter / tempo;
    const notes = Math.floor(2 * TRILL_RATE.most * seconds);
    return notes < 3
      ? [
          finding(
            'ornament does not fit its time',
            'risk',
            t.note.start,
            `${p.rules.place(t.note.start)}: the trill has ${seconds.toFixed(2)} s, room for ${notes} notes`,
            'One flick, or the plain note.'
          )
        ]
      : [];
  });

const breathTooLate: Check = (p) => {
  if (!can(p.rules.instrument, 'breathes')) return [];
  const { line } = p.rules;
  const taken = new Set(p.reading.markings.filter((m) => m.kind === 'breath').map((m) => m.note));
  let from = 0;
  const result = [];
  for (let k = 1; k <= line.length; k++) {
    const before = line[k - 1];
    const breathes =
      k === line.length ||
      line[k].start > before.end ||
      taken.has(before.note.id) ||
      before.note.marks?.some((m) => m.name === 'breath-mark' || m.group === 'fermata');
    if (!breathes) continue;
    const tempo = tempoInForce(p.score, line[from].note.start) ?? ASSUMED_TEMPO;
    const seconds = (60 * (before.end - line[from].start)) / p.rules.sounding.ticksPerQuarter / tempo;
    if (seconds > BREATH_SECONDS)
      result.push(
        finding(
          'breath too late',
          'risk',
          line[from].note.start,
          `${p.rules.place(line[from].note.start)}: ${seconds.toFixed(0)} s until the next breath`,
          'Breathe earlier: at a phrase end or before an upbeat.'
        )
      );
    from = k;
  }
  return result;
};

/** Checks of time, breath and what can be played in it. */
export const TIME_CHECKS: readonly Check[] = [
  notRestored,
  tooEarly,
  outsideTheRequest,
  decorationTooDense,
  withoutEnd,
  onTopOfSlowing,
  aboveTheCeiling,
  ornamentDoesNotFit,
  breathTooLate
];
