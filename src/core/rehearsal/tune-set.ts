import { inSentences } from '../sentences.ts';
import { PRACTICE } from '../style/practice.ts';
import type { NewTask } from './plan/first-tasks.ts';
import type { Plan, SetEntry, TuneSet } from './plan/plan.ts';
import type { Note, Score } from '../score/model.ts';
import { inSigns } from '../analysis/words.ts';
import { midi, pitchName } from '../score/pitch.ts';
import { plural } from '../survey/line.ts';

/** A set played through as a task: in its order, with what is otherwise the second time. */
export function setTask(plan: Plan, set: TuneSet): NewTask {
  const seconds = (t: SetEntry): number => (plan.pieces.find((p) => p.id === t.piece)?.seconds || 60 * PRACTICE.tune) * t.times;
  const line = (t: SetEntry): string => {
    const times = t.times > 1 ? ` ${t.times} times${t.second ? `, the second: ${t.second}` : ''}` : '';
    return `${t.join ? `${t.join} ` : ''}${t.title}${times}`;
  };
  return {
    kind: 'run',
    piece: set.tunes[0].piece,
    title: `Set: ${set.name}`,
    because: 'one after the other, at one tempo, without a stop at the joins',
    how: inSentences([...set.tunes.map(line), ...(set.tempo ? [`Quarter = ${set.tempo} throughout`] : [])]),
    bars: null,
    difficulty: 0,
    minutes: Math.ceil(set.tunes.reduce((n, t) => n + seconds(t), 0) / 60) + PRACTICE.aroundRun,
    tempo: null,
    drill: null,
    loudHigh: false
  };
}

/** The last struck note of a tune and the first one of it, in its first part. */
function ends(score: Score): { first: Note; last: Note } | null {
  const melody = score.notes.filter((n) => n.part === 0 && n.pitch && !n.rest && !n.grace && !n.cue);
  return melody.length ? { first: melody[0], last: melody[melody.length - 1] } : null;
}

/** How one tune goes into the next, in one sentence: meter, notes, and what that means for the player. Handbook 19.3. */
export function joinWords(from: Score, to: Score): string {
  const [a, b] = [ends(from), ends(to)];
  if (!a || !b) return '';
  const [before, after] = [from.measures[a.last.measure].time?.text, to.measures[b.first.measure].time?.text];
  const meter =
    before && after && before !== after ? `${before} goes into ${after}: settle the new beat before its first note` : 'the beat goes on';
  const interval = midi(b.first.pitch!) - midi(a.last.pitch!);
  const where =
    interval === 0
      ? `both on ${inSigns(pitchName(a.last.pitch!))}, so it must be told apart`
      : `from ${inSigns(pitchName(a.last.pitch!))} ${interval > 0 ? 'up' : 'down'} ${plural(Math.abs(interval), 'semitone')} to ${inSigns(pitchName(b.first.pitch!))}`;
  return `${where}; ${meter}.`;
}
