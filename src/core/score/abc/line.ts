import { div, frac, type Fraction } from '../fraction.ts';
import type { Note, Score } from '../model.ts';
import { fifthsName } from '../pitch.ts';

const CLEFS: Record<string, string> = { F: ' clef=bass', 'C-3': ' clef=alto', 'C-4': ' clef=tenor' };
const SIGNS: Record<string, string> = { sharp: '^', flat: '_', natural: '=', 'double-sharp': '^^', 'flat-flat': '__' };

/** The fields before a tune that begins at a measure of a score; its unit is an eighth. */
export function abcHead(score: Score, part: number, staff: number, measure: number): string {
  const { time, key } = score.measures[measure];
  const clef = score.parts[part].changes
    .filter((c) => c.measure <= measure)
    .flatMap((c) => c.clefs ?? [])
    .filter((c) => c.staff === staff)
    .at(-1)?.clef;
  const sign = clef ? (CLEFS[`${clef.sign}-${clef.line}`] ?? CLEFS[clef.sign] ?? '') : '';
  return `X:1\nM:${time?.text ?? 'none'}\nL:1/8\nK:${fifthsName(key.fifths)}${sign}\n`;
}

function lengthOf(quarters: Fraction): string {
  const { n, d } = div(quarters, frac(1, 2));
  return d === 1 ? (n === 1 ? '' : String(n)) : `${n === 1 ? '' : n}/${d === 2 ? '' : d}`;
}

function letterOf({ pitch, accidental }: Note): string {
  const { step, octave } = pitch!;
  const letter = 'CDEFGAB'[step];
  const height = octave >= 5 ? letter.toLowerCase() + "'".repeat(octave - 5) : letter + ','.repeat(4 - octave);
  return (SIGNS[accidental ?? ''] ?? '') + height;
}

/**
 * Some bars of a staff as ABC to go on from: notes, rests, ties and slurs of its first voice.
 * @returns null where they are not a plain line: chords, small notes, groups of three
 */
export function abcLine(score: Score, part: number, staff: number, from: number, to: number): string | null {
  const bars: string[] = [];
  const starts = new Map<string, number>();
  const stops = new Map<string, number>();
  for (const s of score.slurs)
    if (s.kind === 'slur') {
      starts.set(s.from, (starts.get(s.from) ?? 0) + 1);
      stops.set(s.to, (stops.get(s.to) ?? 0) + 1);
    }
  for (let measure = from; measure <= to; measure++) {
    const all = score.notes.filter((n) => n.part === part && n.staff === staff && n.measure === measure);
    const notes = all.filter((n) => n.voice === all[0]?.voice);
    if (!notes.length || notes.some((n) => n.chord || n.grace || n.timeModification || (!n.rest && !n.pitch))) return null;
    bars.push(
      notes
        .map((n) => {
          const name = n.rest ? 'z' : letterOf(n);
          return `${'('.repeat(starts.get(n.id) ?? 0)}${name}${lengthOf(n.duration)}${n.tie?.start ? '-' : ''}${')'.repeat(stops.get(n.id) ?? 0)}`;
        })
        .join(' ')
    );
  }
  return `${bars.join(' | ')} |`;
}
