import { add, cmp, ZERO } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { Reading } from './reading.ts';

/** A reading without what its score cannot hold, and what was left out, in sentences. */
export interface Fitted {
  reading: Reading;
  remarks: string[];
}

/**
 * Leaves out what hangs on parts and bars that the score does not have, as an earlier version of the program may have stored
 * it: pages, sound and files are made of the rest. Where all fits the reading is given back as it is.
 */
export function fitted(reading: Reading, score: Pick<Score, 'parts' | 'measures'>): Fitted {
  const last = score.measures.at(-1);
  const remarks: string[] = [];
  let fits = reading;
  if (reading.part >= score.parts.length) {
    fits = { ...fits, part: 0 };
    remarks.push(`The reading is for part ${reading.part + 1}, which the piece does not have; the first one is taken.`);
  }
  const hangs = ({ part, start }: Reading['markings'][number]): boolean =>
    part < score.parts.length && last !== undefined && cmp(start, ZERO) >= 0 && cmp(start, add(last.start, last.length)) <= 0;
  const markings = reading.markings.filter(hangs);
  const lost = reading.markings.length - markings.length;
  if (lost) {
    fits = { ...fits, markings };
    remarks.push(
      `${lost === 1 ? 'A marking hangs' : `${lost} markings hang`} where the piece has no notes and ${lost === 1 ? 'is' : 'are'} left out.`
    );
  }
  const { peak, levels, ceiling } = reading.plan;
  if (peak !== null && peak >= score.measures.length) {
    fits = { ...fits, plan: { peak: null, levels, ceiling } };
    remarks.push('The loudest bar that was chosen is none of the piece; it is found anew.');
  }
  return { reading: fits, remarks };
}
