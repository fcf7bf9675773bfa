import type { LoudnessAct, TimeAct } from './acts.ts';
import type { WordsRead } from './read-words.ts';

const TIME: Record<TimeAct['kind'], (act: TimeAct) => string> = {
  slow: () => 'slower and slower',
  fast: () => 'faster and faster',
  new: (act) => (act.kind === 'new' && act.way > 0 ? 'faster from here' : 'slower from here'),
  'at once': () => 'slower at once',
  restore: () => 'back to the tempo before',
  wait: () => 'a wait',
  same: () => 'the same pace',
  free: () => 'free in time'
};

const LOUDNESS: Record<LoudnessAct['kind'], (act: LoudnessAct) => string> = {
  swell: (act) => (act.kind === 'swell' && act.way > 0 ? 'growing' : 'fading'),
  step: (act) => (act.kind === 'step' && act.way > 0 ? 'louder from here' : 'softer from here'),
  level: (act) =>
    act.kind === 'level' ? `${act.bound === 'most' ? 'no louder than ' : act.bound === 'least' ? 'at least ' : ''}${act.sign}` : ''
};

/** What words do, as a teacher says it: "slower and slower, fading"; empty where they change neither pace nor loudness. */
export function effectWords({ time, loudness }: WordsRead): string {
  return [time && TIME[time.kind](time), loudness && LOUDNESS[loudness.kind](loudness)].filter(Boolean).join(', ');
}
