import type { Facts } from '../analysis/facts.ts';
import type { Score } from '../score/model.ts';
import { measureAt } from '../score/position.ts';
import { LAST_FILLS, type Look } from './engraving.ts';
import { planSystems, type SetChunk } from './systems.ts';

/** Percent of the engraver's own size at which music stands on the screen, at the usual size. */
const SCALE = 40;
/** Note spaces that fit into 100 pixels of line at the usual size. */
const SPACES_PER_100_PX = 5.4;
/** Room above and below a system, in the engraver's units. */
const MARGIN = 30;

/** How music is engraved on the screen. @param line pixels of a line @param size of the staff against the usual one */
export const screenLook = (line: number, size = 1): Look => ({
  pageWidth: Math.round((line * 100) / (SCALE * size)),
  scale: SCALE,
  margin: MARGIN,
  lastFills: LAST_FILLS
});

/** The systems of a score on the screen; lines begin rather where phrases do. */
export function screenSystems(score: Score, phrases: Facts['phrases'], line: number, size = 1): SetChunk[] {
  const starts = new Set(phrases.map((p) => measureAt(score, p.start).index));
  return planSystems(score, ((line / 100) * SPACES_PER_100_PX) / size, starts);
}
