import { distinct } from '../distinct.ts';
import { toNumber } from '../score/fraction.ts';
import { beatOfMeter } from '../score/meter.ts';
import type { Score } from '../score/model.ts';
import { clock, playingTime, tempoMarks } from '../score/tempo.ts';
import { danceOf } from '../style/dances.ts';
import { nearestOnScale, tempoOfWords } from '../style/tempo-words.ts';
import { GroupBuilder, type SurveyGroup } from './line.ts';

const round = (x: number): string => String(Math.round(x));

/** A tempo that the page suggests without a number: by which name, in beats of the meter and in quarters a minute. */
export interface SuggestedTempo {
  name: string;
  beats: { low: number; high: number };
  low: number;
  high: number;
}

/** What the tempo words of the beginning suggest, else the dance that the title names; null where neither is there. */
export function suggestedTempo(score: Score): SuggestedTempo | null {
  const beat = toNumber(beatOfMeter(score.measures[0]).beat);
  const words = score.directions.filter((d) => d.kind === 'words').map((d) => (d.kind === 'words' ? d.text : ''));
  const word = [...words, score.title].map(tempoOfWords).find((w) => w !== null);
  if (word) return { name: word.name, beats: { low: word.low, high: word.high }, low: word.low * beat, high: word.high * beat };
  const dance = danceOf(score.title);
  if (!dance?.tempo) return null;
  const unit = dance.tempo.unit ?? beat;
  const [low, high] = [dance.tempo.low * unit, dance.tempo.high * unit];
  return { name: dance.name, beats: { low: Math.round(low / beat), high: Math.round(high / beat) }, low, high };
}

/** Tempo marks on the metronome scale, what tempo words mean, and how long the piece lasts at each tempo. */
export function tempi(score: Score): SurveyGroup {
  const group = new GroupBuilder('Tempo');
  const marks = tempoMarks(score);
  for (const m of marks.filter((x) => x.printed)) {
    const range = m.low === m.high ? `${round(m.low)}` : `${round(m.low)} to ${round(m.high)}`;
    const beat = toNumber(beatOfMeter(score.measures[m.measure]).beat);
    const scale = nearestOnScale(m.low / beat);
    const beats = beat === 1 ? '' : `; ${round(m.low / beat)} beats a minute`;
    const near = Math.abs(scale - m.low / beat) < 0.5 ? '' : `; nearest on the metronome: ${scale}`;
    group.add(m.text, `${range} quarters a minute${beats}${near}`, [m.measure]);
  }
  const words = score.directions.flatMap((d) => (d.kind === 'words' ? [d] : []));
  // A tempo stands over several parts of a large score and is one tempo.
  for (const d of distinct(words, (w) => `${w.start.n}/${w.start.d} ${w.text}`)) {
    const word = tempoOfWords(d.text);
    if (word) group.add(`“${d.text}”`, `${word.name}: usually ${word.low} to ${word.high} beats a minute`, [d.measure]);
  }
  const given = marks.filter((m) => m.start.n === 0);
  const suggestion = suggestedTempo(score);
  if (given.length || suggestion) {
    const fallback = given[0]?.low ?? suggestion!.low;
    const slow = playingTime(score, fallback, 'low');
    const fast = playingTime(score, given[0]?.high ?? suggestion!.high, 'high');
    group.add('Playing time', slow - fast < 1 ? clock(slow) : `${clock(fast)} to ${clock(slow)}`);
    if (given.length && suggestion)
      group.add('By the tempo word alone', `${clock(steady(score, suggestion.high))} to ${clock(steady(score, suggestion.low))}`);
  } else group.add('Tempo', 'no tempo is given; decide it by meter, dance and the shortest notes');
  return group.group;
}

/** Playing time at one tempo throughout. */
function steady(score: Score, tempo: number): number {
  return playingTime({ ...score, directions: [] }, tempo);
}
