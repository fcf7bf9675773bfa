import { toNumber } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { tempoInForce } from '../score/tempo.ts';
import { suggestedTempo } from './tempo.ts';
import { GroupBuilder, times, type SurveyGroup } from './line.ts';

const valueName = (n: Note): string => {
  const tuplet = n.timeModification ? ` (${n.timeModification.actual} in the time of ${n.timeModification.normal})` : '';
  return `${n.dots ? 'dotted '.repeat(n.dots) : ''}${n.type ?? `${toNumber(n.duration)} quarters`}${tuplet}`;
};

/** Note values from longest to shortest, and how many notes a second the shortest means at the tempo. */
export function values(score: Score): SurveyGroup {
  const group = new GroupBuilder('Note values, longest first');
  const found = new Map<string, { length: number; bars: number[]; first: Note }>();
  for (const n of score.notes) {
    if (n.rest || n.cue || n.grace || n.chord) continue;
    const name = valueName(n);
    const entry = found.get(name) ?? { length: toNumber(n.duration), bars: [], first: n };
    entry.bars.push(n.measure);
    found.set(name, entry);
  }
  const ordered = [...found].sort((a, b) => b[1].length - a[1].length);
  for (const [label, v] of ordered) group.add(label, times(v.bars.length), v.bars);
  const shortest = ordered.at(-1)?.[1];
  if (shortest && shortest.length > 0) {
    const given = tempoInForce(score, shortest.first.start);
    const suggestion = given ? null : suggestedTempo(score);
    const tempo = given ?? (suggestion ? (suggestion.low + suggestion.high) / 2 : null);
    if (tempo)
      group.add(
        'Shortest',
        `${(tempo / 60 / shortest.length).toFixed(1)} notes a second at quarter = ${Math.round(tempo)}${given ? '' : ' (the middle of what the page suggests)'}`,
        shortest.bars
      );
  }
  return group.group;
}
