import { stepOf, type Pitch } from '../score/pitch.ts';

/** Usual sounding range of an instrument, and from where it is high. From memory, adjustable. Handbook 9.1. */
export interface InstrumentRange {
  pattern: RegExp;
  name: string;
  low: Pitch;
  high: Pitch;
  /** From here upward playing costs endurance or is exposed. */
  highFrom: Pitch;
}

const pitch = (name: string): Pitch => {
  const match = /^([A-G])(#|b)?(\d)$/.exec(name)!;
  return { step: stepOf(match[1]), alter: match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0, octave: Number(match[3]) };
};
const range = (name: string, low: string, high: string, highFrom: string, pattern: RegExp): InstrumentRange => ({
  pattern,
  name,
  low: pitch(low),
  high: pitch(high),
  highFrom: pitch(highFrom)
});

/** More special names first. */
const INSTRUMENT_RANGES: readonly InstrumentRange[] = [
  range('piccolo', 'D5', 'C8', 'A7', /piccolo/i),
  range('alto flute', 'G3', 'G6', 'D6', /alto flute/i),
  range('flute', 'C4', 'D7', 'A6', /fl(ute|öte|auto)\b/i),
  range('English horn', 'E3', 'C6', 'G5', /english horn|cor anglais|corno inglese/i),
  range('oboe', 'Bb3', 'A6', 'D6', /oboe|hautbois/i),
  range('bass clarinet', 'D2', 'F5', 'C5', /bass clarinet|bassklarinette/i),
  range('clarinet', 'D3', 'C7', 'D6', /clarinet|klarinette/i),
  range('contrabassoon', 'Bb0', 'Bb3', 'F3', /contrabassoon|kontrafagott/i),
  range('bassoon', 'Bb1', 'E5', 'B4', /bassoon|fagott/i),
  range('soprano saxophone', 'Ab3', 'E6', 'C6', /soprano sax/i),
  range('tenor saxophone', 'Ab2', 'E5', 'C5', /tenor sax/i),
  range('baritone saxophone', 'C2', 'A4', 'F4', /bari(tone)? sax/i),
  range('alto saxophone', 'Db3', 'A5', 'F5', /sax/i),
  range('recorder', 'F4', 'G6', 'D6', /recorder|blockflöte/i),
  range('Highland pipes', 'G4', 'A5', 'A5', /pipe|chanter/i),
  range('horn', 'F#2', 'C6', 'F5', /horn|corno|cor\b/i),
  range('trumpet', 'E3', 'D6', 'G5', /trumpet|tromba|trompete|cornet/i),
  range('bass trombone', 'C2', 'G4', 'D4', /bass trombone/i),
  range('trombone', 'E2', 'C5', 'G4', /trombone|posaune/i),
  range('euphonium', 'E2', 'C5', 'F4', /euphonium|baritone horn/i),
  range('tuba', 'D1', 'F4', 'Bb3', /tuba/i),
  range('violin', 'G3', 'A7', 'E6', /violin(?!cell|a)|geige|fiddle/i),
  range('viola', 'C3', 'E6', 'A5', /viola|bratsche/i),
  range('cello', 'C2', 'E6', 'A4', /cell/i),
  range('double bass', 'E1', 'G4', 'D4', /contrabass|double bass|kontrabass|bass\b/i),
  range('piano', 'A0', 'C8', 'C7', /piano|klavier|keyboard/i)
];

/** The range of an instrument by the name of its part; null when the name is not known. */
export const rangeOf = (name: string): InstrumentRange | null => INSTRUMENT_RANGES.find((r) => r.pattern.test(name)) ?? null;
