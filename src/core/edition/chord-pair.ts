import type { PlainChord } from '../analysis/plain-chord.ts';
import { midi, stepOf, type Pitch } from '../score/pitch.ts';
import { escapeXml } from '../score/musicxml/escape.ts';

/** Lowest note of a chord shown by itself, as a MIDI number. */
const LOWEST = 55;

/** Names of notes from the bass up as pitches, each above the one before, the bass at or above G3. */
export function stacked(names: readonly string[]): Pitch[] {
  const pitches: Pitch[] = [];
  for (const name of names) {
    const [, letter, signs] = /^([A-G])([#b]*)$/.exec(name)!;
    const alter = [...signs].reduce((sum, s) => sum + (s === '#' ? 1 : -1), 0);
    const below = pitches.length ? midi(pitches[pitches.length - 1]) : LOWEST - 1;
    let octave = 2;
    while (midi({ step: stepOf(letter), alter, octave }) <= below) octave++;
    pitches.push({ step: stepOf(letter), alter, octave });
  }
  return pitches;
}

export const midiOf = (names: readonly string[]): number[] => stacked(names).map(midi);

function chordXml(pitches: readonly Pitch[]): string {
  const accidentals: Record<number, string> = { [-2]: 'flat-flat', [-1]: 'flat', 0: 'natural', 1: 'sharp', 2: 'double-sharp' };
  return pitches
    .map(
      ({ step, alter, octave }, k) =>
        `<note>${k ? '<chord/>' : ''}<pitch><step>${'CDEFGAB'[step]}</step><alter>${alter}</alter><octave>${octave}</octave></pitch><duration>4</duration><type>whole</type>${alter ? `<accidental>${accidentals[alter] ?? ''}</accidental>` : ''}</note>`
    )
    .join('');
}

/** A MusicXML document of two bars: the plain chord, then the coloured one. */
export function chordPair({ plain, coloured, roman }: PlainChord): string {
  const head = `<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time print-object="no"><beats>4</beats><beat-type>4</beat-type></time><clef><sign>G</sign><line>2</line></clef></attributes>`;
  return `<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><work><work-title>${escapeXml(roman)}</work-title></work><part-list><score-part id="P1"><part-name></part-name></score-part></part-list><part id="P1"><measure number="1">${head}${chordXml(stacked(plain))}</measure><measure number="2">${chordXml(stacked(coloured))}</measure></part></score-partwise>`;
}
