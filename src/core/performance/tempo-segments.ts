import { MOMENTS } from '../search.ts';
import { beatTicks, type PlayableScore } from './playable-score.ts';

/** The written time cut into cells, each of which runs at one tempo. Ticks of the sounding score; seconds at the page's own tempo. */
export interface TempoSegments {
  from: Int32Array;
  to: Int32Array;
  literal: Float64Array;
  measure: Int32Array;
  /** Number of the beat in its measure, from 0. */
  beat: Int32Array;
  /** Index of the first cell of each measure; one more at the end. */
  first: number[];
}

/** TempoSegments of a beat: fine enough that a curve is smooth. */
const PER_BEAT = 2;

/** @param points further ticks at which a cell has to begin */
export function tempoSegments(playable: PlayableScore, points: readonly number[]): TempoSegments {
  const { score, sounding } = playable;
  const cuts = [...new Set([...points, ...playable.marks.map((m) => m.at)])].sort((a, b) => a - b);
  const from: number[] = [];
  const to: number[] = [];
  const measures: number[] = [];
  const beats: number[] = [];
  const first: number[] = [];
  let cut = 0;
  for (const measure of score.measures) {
    first.push(from.length);
    const start = sounding.measureStarts[measure.index];
    const end = sounding.measureStarts[measure.index + 1] ?? sounding.totalTicks;
    const beat = beatTicks(playable, measure);
    let at = start;
    for (let k = 1; at < end;) {
      let next = Math.min(end, start + Math.round((k * beat) / PER_BEAT));
      while (cut < cuts.length && cuts[cut] <= at) cut++;
      if (cut < cuts.length && cuts[cut] < next) next = cuts[cut];
      else k++;
      if (next <= at) continue;
      from.push(at);
      to.push(next);
      measures.push(measure.index);
      beats.push(Math.floor((at - start) / beat));
      at = next;
    }
  }
  first.push(from.length);
  const literal = new Float64Array(from.length);
  let tempo = playable.firstTempo;
  let mark = 0;
  for (let c = 0; c < from.length; c++) {
    while (mark < playable.marks.length && playable.marks[mark].at <= from[c]) {
      tempo = playable.marks[mark].tempo;
      mark++;
    }
    literal[c] = ((to[c] - from[c]) * 60) / (tempo * sounding.ticksPerQuarter);
  }
  return {
    from: Int32Array.from(from),
    to: Int32Array.from(to),
    literal,
    measure: Int32Array.from(measures),
    beat: Int32Array.from(beats),
    first
  };
}

/** Index of the cell that holds a tick; looked for in one measure where it is known. */
export const segmentAt = (segments: TempoSegments, ticks: number, measure?: number): number =>
  measure === undefined
    ? MOMENTS.lastBegun(segments.from, ticks)
    : MOMENTS.lastBegun(segments.from, ticks, segments.first[measure], segments.first[measure + 1]);
