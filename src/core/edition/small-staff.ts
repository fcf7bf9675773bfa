import type { AbcSound } from '../score/abc/model.ts';
import type { Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';

/** What the small staves (skeletons, ornaments written out) share. */

/** Names of accidentals in MusicXML, by alteration. */
export const ACCIDENTAL_NAMES: Record<string, string> = {
  '-2': 'flat-flat',
  '-1': 'flat',
  '0': 'natural',
  '1': 'sharp',
  '2': 'double-sharp'
};

/** A rest of a length, or a note when it is given pitches. */
export const sound = (duration: Fraction, extra: Partial<AbcSound> = {}): AbcSound => ({
  kind: 'sound',
  pitches: [],
  duration,
  decorations: [],
  slurStarts: 0,
  slurStops: 0,
  joined: false,
  lyrics: [],
  ...extra
});

const CLEFS: Record<string, string> = { F: 'bass', 'C-3': 'alto', 'C-4': 'tenor', G: 'treble' };

/** The clef of a staff at a measure, by its name. */
export function clefOf(score: Score, part: number, measure: number, staff: number): string {
  const changes = score.parts[part].changes.filter((c) => c.measure <= measure).flatMap((c) => c.clefs ?? []);
  const clef = changes.filter((c) => c.staff === staff).at(-1)?.clef;
  return clef ? (CLEFS[`${clef.sign}-${clef.line}`] ?? CLEFS[clef.sign] ?? 'treble') : 'treble';
}
