import { cmp } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { dynamicStep } from '../style/dynamics.ts';
import { GroupBuilder, tally, times, unique, type SurveyGroup } from './line.ts';

/** Dynamic range with the loudest and softest marks, every sign counted, hairpins. */
export function loudness(score: Score): SurveyGroup {
  const group = new GroupBuilder('Dynamics');
  const marks = score.directions.filter((d) => d.kind === 'dynamic');
  const steps = marks
    .map((d) => ({ d, step: dynamicStep(d.value) }))
    .filter((x): x is { d: (typeof marks)[number]; step: number } => x.step !== null);
  if (steps.length) {
    const low = steps.reduce((a, b) => (b.step < a.step ? b : a));
    const high = steps.reduce((a, b) => (b.step > a.step ? b : a));
    group.add(
      'Range',
      low.d.value === high.d.value ? `${low.d.value} throughout` : `${low.d.value} to ${high.d.value}`,
      unique([low.d.measure, high.d.measure])
    );
    const at = (step: number) => steps.filter((x) => x.step === step).map((x) => x.d.measure);
    group.add('Loudest', high.d.value, at(high.step));
    group.add('Softest', low.d.value, at(low.step));
  } else group.add('Range', 'no dynamic is printed');
  for (const t of tally(
    marks,
    (d) => d.value,
    (d) => d.measure
  ))
    group.add(t.name, times(t.count), t.bars);
  for (const kind of ['crescendo', 'diminuendo'] as const) {
    const pins = score.hairpins.filter((h) => h.kind === kind);
    const bars = pins.map((h) => score.measures.findLastIndex((m) => cmp(m.start, h.start) <= 0));
    if (pins.length) group.add(`${kind} hairpin`, times(pins.length), bars);
  }
  return group.group;
}
