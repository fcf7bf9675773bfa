import type { Facts } from '../analysis/facts.ts';
import type { Score } from '../score/model.ts';
import { chunkWriter } from './chunk.ts';
import type { Engraving } from './engraving.ts';
import type { SetChunk } from './systems.ts';
import { screenLook, screenSystems } from './screen.ts';

/** Lines for which the first systems stand ready, in pixels: beside a panel, and on a phone. */
export const READY_LINES = { wide: 840, narrow: 340 } as const;
export type ReadyLine = keyof typeof READY_LINES;

/** Systems that fill a screen at first sight. */
const SYSTEMS = { wide: 3, narrow: 4 };

/** The first systems of a source as one SVG picture, as the screen has them before anything is marked. */
export function firstPicture(engraving: Engraving, document: string, score: Score, phrases: Facts['phrases'], line: ReadyLine): string {
  const first: SetChunk = { from: 0, to: 0, systems: [] };
  for (const chunk of screenSystems(score, phrases, READY_LINES[line])) {
    if (first.systems.length >= SYSTEMS[line]) break;
    first.systems.push(...chunk.systems);
    first.to = chunk.to;
    if (chunk.needs) first.needs = Math.max(first.needs ?? 1, chunk.needs);
  }
  const mei = engraving.mei(chunkWriter(document, score)(first));
  return engraving.chunk(mei, score, first, [], [], screenLook(READY_LINES[line]), false)(1);
}
