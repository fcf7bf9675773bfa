/** A spelled pitch. Alterations are semitones; quarter tones are halves. */
export interface Pitch {
  /** 0 = C … 6 = B. */
  readonly step: number;
  readonly alter: number;
  /** Scientific octave: middle C begins octave 4. */
  readonly octave: number;
}

/** A transposition or interval: letter steps and semitones. */
export interface Interval {
  readonly diatonic: number;
  readonly chromatic: number;
}

const STEPS = 'CDEFGAB';
const STEP_SEMITONES = [0, 2, 4, 5, 7, 9, 11];
const STEP_FIFTHS = [0, 2, 4, -1, 1, 3, 5];
const FIFTHS_STEP = [3, 0, 4, 1, 5, 2, 6];

/** Octaves that music has: below and above nothing is heard or written. */
export const LOWEST_OCTAVE = -1;
export const HIGHEST_OCTAVE = 10;

export const stepOf = (letter: string): number => STEPS.indexOf(letter);

/** MIDI key number; not an integer for quarter tones. */
export const midi = (p: Pitch): number => 12 * (p.octave + 1) + STEP_SEMITONES[p.step] + p.alter;

/** Steps above C0, ignoring alterations: the height on a staff. */
export const staffStep = (p: Pitch): number => 7 * p.octave + p.step;

/** The pitch at a height on a staff, as `staffStep` gives it. */
export const atStaffStep = (height: number, alter: number): Pitch => ({
  step: ((height % 7) + 7) % 7,
  alter,
  octave: Math.floor(height / 7)
});

export const accidental = (alter: number): string => {
  const whole = Math.round(alter);
  return whole >= 0 ? '#'.repeat(Math.min(whole, 4)) : 'b'.repeat(Math.min(-whole, 4));
};

/** "C#4", "Bb3". */
export const pitchName = (p: Pitch): string => STEPS[p.step] + accidental(p.alter) + p.octave;

const ALTERS: Record<string, number> = { '': 0, '#': 1, '##': 2, b: -1, bb: -2 };

/** A pitch from its name, "C#4", "Bb3", "F♯5"; null when it is none. */
export function parsePitch(name: string): Pitch | null {
  const match = /^([A-Ga-g])(#{0,2}|b{0,2})(-1|\d|10)$/.exec(name.trim().replace(/♯/g, '#').replace(/♭/g, 'b').replace(/♮/g, ''));
  return match && { step: stepOf(match[1].toUpperCase()), alter: ALTERS[match[2]], octave: Number(match[3]) };
}

/**
 * Place on the line of fifths, C = 0, G = 1, F = -1, F# = 6, Bb = -2: spelling without octave.
 */
export const fifthsOf = (p: Pitch): number => STEP_FIFTHS[p.step] + 7 * Math.round(p.alter);

/** "F#" for 6. */
export function fifthsName(f: number): string {
  const alter = Math.floor((f + 1) / 7);
  return STEPS[FIFTHS_STEP[(((f + 1) % 7) + 7) % 7]] + accidental(alter);
}

/** Pitch class 0–11 of a place on the line of fifths. */
export const fifthsPc = (f: number): number => (((f * 7) % 12) + 12) % 12;

export function transpose(p: Pitch, by: Interval): Pitch {
  if (by.diatonic === 0 && by.chromatic === 0) return p;
  const plain = atStaffStep(staffStep(p) + by.diatonic, 0);
  return { ...plain, alter: midi(p) + by.chromatic - midi(plain) };
}

const QUALITIES: Record<string, Record<number, string>> = {
  perfect: { 0: 'P', 1: 'A', [-1]: 'd', 2: 'AA', [-2]: 'dd' },
  other: { 0: 'M', [-1]: 'm', 1: 'A', [-2]: 'd', 2: 'AA', [-3]: 'dd' }
};

/** Interval name with direction: "P5", "-M2", "P1", "m10". */
export function intervalName(i: Interval): string {
  const down = i.diatonic < 0 || (i.diatonic === 0 && i.chromatic < 0);
  const steps = Math.abs(i.diatonic);
  const semitones = down ? -i.chromatic : i.chromatic;
  const simple = steps % 7;
  const natural = STEP_SEMITONES[simple] + 12 * Math.floor(steps / 7);
  const family = simple === 0 || simple === 3 || simple === 4 ? 'perfect' : 'other';
  const quality = QUALITIES[family][semitones - natural] ?? '?';
  return (down ? '-' : '') + quality + (steps + 1);
}

/** Interval from a to b. */
export const intervalBetween = (a: Pitch, b: Pitch): Interval => ({
  diatonic: staffStep(b) - staffStep(a),
  chromatic: midi(b) - midi(a)
});

/** Alteration that a key signature of `fifths` gives to a letter step. */
export function signatureAlter(step: number, fifths: number): number {
  const f = STEP_FIFTHS[step];
  // Sharps fall on F C G D A E B in turn (f = -1 … 5), flats on B E A D G C F.
  if (fifths > 0) return Math.floor((fifths - (f + 1) + 6) / 7);
  if (fifths < 0) return -Math.floor((-fifths - (5 - f) + 6) / 7);
  return 0;
}
