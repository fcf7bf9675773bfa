import { inSigns } from '../../analysis/words.ts';
import { parsePitch, type Pitch } from '../../score/pitch.ts';
import type { MarkingDescription, MeiNote } from '../description.ts';
import { atOnePlace, noteOf, wordsXml } from '../usual.ts';

const ACCIDENTALS: Record<string, string> = { '-2': 'ff', '-1': 'f', '0': 'n', '1': 's', '2': 'x' };

const asMei = ({ step, alter, octave }: Pitch): MeiNote => ({ pname: 'cdefgab'[step], oct: octave, accid: ACCIDENTALS[alter] });

export const emendation: MarkingDescription = {
  name: 'emendation',
  says: 'A note that is meant to be another: the print is thought wrong.',
  hangs: 'note',
  values: {
    hint: 'F#4',
    most: 6,
    fault: (value) => (parsePitch(value) ? null : 'A note is a letter, an accidental if it has one, and an octave: F#4, Bb3, C5.')
  },
  inWords: (value) => `emendation to ${inSigns(value)}`,
  legend: { sign: 'small note', meaning: 'editorial: the source has another note, named in the commentary' },
  mei(m) {
    const meant = parsePitch(m.value);
    return meant && { instead: asMei(meant) };
  },
  // The notes of a file stay those of the source: what is meant stands over them in words.
  musicXml: (m) => ({ direction: wordsXml(`[${inSigns(m.value)}]`), placement: 'above' }),
  clashes: atOnePlace,
  againstPrinted(score, m) {
    const printed = noteOf(score, m)?.pitch;
    return printed ? 'another note is printed' : null;
  },
  sound: (value) => ({ meant: parsePitch(value) ?? undefined })
};
