import type { Performance } from '../performance/perform.ts';
import { isNoticed } from '../performance/explain.ts';
import { indexAt } from '../performance/transport.ts';
import { BENT, WRITTEN_ACTS } from '../style/performance-weights.ts';
import type { SchoolKey } from '../style/schools.ts';
import { finding, type Finding, type ProofContext } from './finding.ts';

/** What only the performance shows: a plan of time that breaks the promise of its school (handbook 7.4). */

const school = (p: ProofContext, key: SchoolKey): string | undefined => p.rules.schools[key];

/** Dots sharpened, swing and unequal notes bend ratios on purpose. */
const bendsOnPurpose = (p: ProofContext): boolean =>
  school(p, 'dotting') === 'sharpened' ||
  ['mild', 'full'].includes(school(p, 'inegales') ?? '') ||
  ['two-to-one', 'by-tempo'].includes(school(p, 'swing') ?? '');

/** Three entries within a beat whose ratio has gone beyond what the school tolerates. */
function ratiosBent(p: ProofContext, plan: Performance, page: Performance): Finding[] {
  if (bendsOnPurpose(p)) return [];
  const most = BENT[school(p, 'rubato') ?? 'beat-strict'] ?? BENT['beat-strict'];
  const literal = new Map(page.notes.flatMap((n) => (n.lead && !n.ornament && page.bars[n.bar].pass === 0 ? [[n.note, n] as const] : [])));
  const byBeat = new Map<number, { note: string; onset: number }[]>();
  for (const n of plan.notes) {
    const same = literal.get(n.note);
    if (!n.lead || n.ornament || plan.bars[n.bar].pass > 0 || !same) continue;
    const beat = indexAt(page.beats, same.onset + 1e-9);
    const list = byBeat.get(beat);
    if (!list) byBeat.set(beat, [{ note: n.note, onset: n.onset }]);
    else if (!list.some((x) => x.note === n.note)) list.push({ note: n.note, onset: n.onset });
  }
  const found: Finding[] = [];
  for (const [beat, list] of byBeat) {
    if (list.length < 3) continue;
    const onsets = list.map((x) => literal.get(x.note)!.onset);
    const [first, last] = [0, list.length - 1];
    const share = (times: number[], k: number): number => (times[k] - times[first]) / (times[last] - times[first]);
    const worst = Math.max(
      ...list.slice(1, -1).map((_, k) =>
        Math.abs(
          share(
            list.map((x) => x.onset),
            k + 1
          ) - share(onsets, k + 1)
        )
      )
    );
    if (!(worst > most)) continue;
    const measure = p.score.measures[page.beats[beat].measure];
    found.push(
      finding(
        'ratio inside the beat bent',
        'contradiction',
        measure.start,
        `${p.rules.place(measure.start)}, beat ${page.beats[beat].beat + 1}: an entry stands ${Math.round(100 * worst)} % of its group away from where the rhythm has it; the school allows ${Math.round(100 * most)} %.`,
        'Lessen the leaning or the own rubato here, or answer the question of rubato otherwise for these bars.'
      )
    );
  }
  return found;
}

/** Time that is taken in a bar of “stolen” rubato and not given back in it. */
function notGivenBack(p: ProofContext, plan: Performance): Finding[] {
  if (school(p, 'rubato') !== 'stolen') return [];
  return plan.bars.flatMap((b) => {
    if (b.pass > 0) return [];
    const shares = b.shares.filter((s) => !WRITTEN_ACTS.includes(s.effect));
    const left = shares.reduce((sum, s) => sum + s.amount, 0);
    const measure = p.score.measures[b.measure];
    if (!isNoticed(left, b.literal)) return [];
    return [
      finding(
        'stolen time not given back',
        'contradiction',
        measure.start,
        `${p.rules.place(measure.start)}: ${Math.abs(left).toFixed(2)} s ${left > 0 ? 'taken and not given back' : 'hurried and not made up for'} within the bar.`,
        'Let the pulled bar go, or answer the question of rubato otherwise for it.'
      )
    ];
  });
}

export const playedFindings = (p: ProofContext, plan: Performance, page: Performance): Finding[] => [
  ...ratiosBent(p, plan, page),
  ...notGivenBack(p, plan)
];
