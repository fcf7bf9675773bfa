import { lastBegun } from './search.ts';
import { beatTicks, type PerformanceGround } from './ground.ts';

/** The written time cut into cells, each of which runs at one tempo. Ticks of the texture; seconds at the page's own tempo. */
export interface Cells {
  from: Int32Array;
  to: Int32Array;
  literal: Float64Array;
  measure: Int32Array;
  /** Number of the beat in its measure, from 0. */
  beat: Int32Array;
  /** Index of the first cell of each measure; one more at the end. */
  first: number[];
}

/** Cells of a beat: fine enough that a curve is smooth. */
const PER_BEAT = 2;

/** @param points further ticks at which a cell has to begin */
export function cellsOf(ground: PerformanceGround, points: readonly number[]): Cells {
  const { score, texture } = ground;
  const cuts = [...new Set([...points, ...ground.marks.map((m) => m.at)])].sort((a, b) => a - b);
  const from: number[] = [];
  const to: number[] = [];
  const measures: number[] = [];
  const beats: number[] = [];
  const first: number[] = [];
  let cut = 0;
  for (const measure of score.measures) {
    first.push(from.length);
    const start = texture.measureStarts[measure.index];
    const end = texture.measureStarts[measure.index + 1] ?? texture.totalTicks;
    const beat = beatTicks(ground, measure);
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
  let tempo = ground.firstTempo;
  let mark = 0;
  for (let c = 0; c < from.length; c++) {
    while (mark < ground.marks.length && ground.marks[mark].at <= from[c]) {
      tempo = ground.marks[mark].tempo;
      mark++;
    }
    literal[c] = ((to[c] - from[c]) * 60) / (tempo * texture.ticksPerQuarter);
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
export const cellAt = (cells: Cells, ticks: number, measure?: number): number =>
  measure === undefined
    ? lastBegun(cells.from.length, (k) => cells.from[k], ticks)
    : lastBegun(cells.first[measure + 1], (k) => cells.from[k], ticks, cells.first[measure]);
