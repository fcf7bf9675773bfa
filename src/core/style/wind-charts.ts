/**
 * Fingerings of woodwinds by written pitch, from memory [M], to be checked with players and replaced by a teacher's own. Handbook
 * 16.1. A fingering is what is held down: T the left thumb, R the register or octave key (P the second one), 1 2 3 the left
 * hand's fingers, 4 5 6 the right hand's, h a thumb or first finger that covers half; then keys by name: l… for the left little
 * finger, r… for the right, s… for the right hand's side, p… for the left palm, t… for the right thumb, k… for the first finger of the left hand, f the
 * fork of the right ring finger, b the key between the first two. Several ways are separated by bars, the regular one first. What
 * stands high and differs from maker to maker is left out.
 */
export interface WindChart {
  /** By pitch, flats for black keys but F#, C#, G# as they are called. */
  ways: Readonly<Record<string, string>>;
}

const CLARINET: WindChart = {
  ways: {
    E3: 'T123456 lE | T123456 rE',
    F3: 'T123456 rF | T123456 lF',
    'F#3': 'T123456 lF# | T123456 rF#',
    G3: 'T123456',
    'G#3': 'T123456 rG#',
    A3: 'T12345',
    Bb3: 'T1234',
    B3: 'T1235 | T1234 f',
    C4: 'T123',
    'C#4': 'T123 lC#',
    D4: 'T12',
    Eb4: 'T12 sEb | T14',
    E4: 'T1',
    F4: 'T',
    'F#4': '1 | T sF#',
    G4: '',
    'G#4': 'kG#',
    A4: 'kA',
    Bb4: 'R kA',
    B4: 'TR123456 lE | TR123456 rE',
    C5: 'TR123456 rF | TR123456 lF',
    'C#5': 'TR123456 lF# | TR123456 rF#',
    D5: 'TR123456',
    Eb5: 'TR123456 rG#',
    E5: 'TR12345',
    F5: 'TR1234',
    'F#5': 'TR1235 | TR1234 f',
    G5: 'TR123',
    'G#5': 'TR123 lC#',
    A5: 'TR12',
    Bb5: 'TR12 sEb | TR14',
    B5: 'TR1',
    C6: 'TR',
    'C#6': 'TR2345',
    D6: 'TR234 rG#',
    E6: 'TR23 rG#',
    F6: 'TR23 lC# rG#'
  }
};

const FLUTE: WindChart = {
  ways: {
    C4: 'T123456 rC',
    'C#4': 'T123456 rC#',
    D4: 'T123456',
    Eb4: 'T123456 rEb',
    E4: 'T12345 rEb',
    F4: 'T1234 rEb',
    'F#4': 'T1236 rEb | T1235 rEb',
    G4: 'T123 rEb',
    'G#4': 'T123 lG# rEb',
    A4: 'T12 rEb',
    Bb4: 'T14 rEb | B1 rEb',
    B4: 'T1 rEb',
    C5: '1 rEb',
    'C#5': 'rEb',
    D5: 'T23456',
    Eb5: 'T23456 rEb',
    E5: 'T12345 rEb',
    F5: 'T1234 rEb',
    'F#5': 'T1236 rEb | T1235 rEb',
    G5: 'T123 rEb',
    'G#5': 'T123 lG# rEb',
    A5: 'T12 rEb',
    Bb5: 'T14 rEb | B1 rEb',
    B5: 'T1 rEb',
    C6: '1 rEb',
    'C#6': 'rEb',
    D6: 'T23 rEb',
    Eb6: 'T123456 lG# rEb',
    E6: 'T1245 rEb',
    F6: 'T134 rEb',
    'F#6': 'T136 rEb',
    G6: '123 rEb',
    'G#6': '23 lG# rEb',
    A6: 'T24 rEb'
  }
};

const SAXOPHONE: WindChart = {
  ways: {
    Bb3: '123456 lBb rC',
    B3: '123456 lB rC',
    C4: '123456 rC',
    'C#4': '123456 lC# rC',
    D4: '123456',
    Eb4: '123456 rEb',
    E4: '12345',
    F4: '1234',
    'F#4': '1235 | 1234 f',
    G4: '123',
    'G#4': '123 lG#',
    A4: '12',
    Bb4: '1 b | 12 sBb | 14',
    B4: '1',
    C5: '2 | 1 sC',
    'C#5': '',
    D5: 'R123456',
    Eb5: 'R123456 rEb',
    E5: 'R12345',
    F5: 'R1234',
    'F#5': 'R1235 | R1234 f',
    G5: 'R123',
    'G#5': 'R123 lG#',
    A5: 'R12',
    Bb5: 'R1 b | R12 sBb | R14',
    B5: 'R1',
    C6: 'R2 | R1 sC',
    'C#6': 'R',
    D6: 'R pD',
    Eb6: 'R pD pEb',
    E6: 'R pD pEb sE',
    F6: 'R pD pEb pF sE'
  }
};

const OBOE: WindChart = {
  ways: {
    B3: '123456 lB rC',
    C4: '123456 rC',
    'C#4': '123456 rC#',
    D4: '123456',
    Eb4: '123456 rEb | 123456 lEb',
    E4: '12345',
    F4: '12345 f | 12346 rEb | 12345 lF',
    'F#4': '1234',
    G4: '123',
    'G#4': '123 lG#',
    A4: '12',
    Bb4: '124',
    B4: '1',
    C5: '14',
    'C#5': 'h23456 rC#',
    D5: 'h23456',
    Eb5: 'h23456 rEb | h23456 lEb',
    E5: 'R12345',
    F5: 'R12345 f | R12346 rEb | R12345 lF',
    'F#5': 'R1234',
    G5: 'R123',
    'G#5': 'R123 lG#',
    A5: 'P12',
    Bb5: 'P124',
    B5: 'P1',
    C6: 'P14'
  }
};

/** Of the alto in F, at its sounding pitch; 7 is the right little finger. */
const RECORDER: WindChart = {
  ways: {
    F4: 'T1234567',
    G4: 'T123456',
    A4: 'T12345',
    Bb4: 'T123467',
    B4: 'T12356',
    C5: 'T123',
    'C#5': 'T1245',
    D5: 'T12',
    Eb5: 'T134',
    E5: 'T1',
    F5: 'T2',
    'F#5': '12',
    G5: '2',
    'G#5': '23456',
    A5: 'h12345',
    Bb5: 'h12346',
    B5: 'h1235',
    C6: 'h123',
    'C#6': 'h124',
    D6: 'h12',
    E6: 'h1245',
    F6: 'h145'
  }
};

/** R is the whisper key here; keys of the right thumb begin with t. */
const BASSOON: WindChart = {
  ways: {
    F2: 'R123456 rF',
    'F#2': 'R123456 rF# | R123456 tF#',
    G2: 'R123456',
    'G#2': 'R123456 rG#',
    A2: 'R12345',
    Bb2: 'R12345 tBb | R1234 f',
    B2: 'R1234',
    C3: 'R123',
    'C#3': '123 lC#',
    D3: 'R12',
    Eb3: 'R13',
    E3: 'R1',
    F3: 'R',
    'F#3': 'h23456 tF# | h23456 rF#',
    G3: 'h23456',
    'G#3': 'h23456 rG#',
    A3: '12345',
    Bb3: '12345 tBb',
    B3: '1234',
    C4: '123',
    'C#4': '123 rF lC#',
    D4: '12',
    Eb4: '124 lE',
    E4: '1345 lE',
    F4: '13456 lE',
    'F#4': '2345 rF lE',
    G4: '2345 rF'
  }
};

export const WIND_CHARTS: Readonly<Record<string, WindChart>> = {
  clarinet: CLARINET,
  'e-flat-clarinet': CLARINET,
  'bass-clarinet': CLARINET,
  'alto-clarinet': CLARINET,
  'basset-horn': CLARINET,
  flute: FLUTE,
  'alto-flute': FLUTE,
  'bass-flute': FLUTE,
  piccolo: FLUTE,
  oboe: OBOE,
  'english-horn': OBOE,
  'oboe-damore': OBOE,
  'soprano-sax': SAXOPHONE,
  'alto-sax': SAXOPHONE,
  'tenor-sax': SAXOPHONE,
  'baritone-sax': SAXOPHONE,
  recorder: RECORDER,
  bassoon: BASSOON,
  contrabassoon: BASSOON
};

/** Prices of moving from one fingering to the next (16.2) [M]. */
export const WIND_PRICES = {
  finger: 0.1,
  /** Fingers that go down while others go up. */
  against: 0.18,
  /** One finger from key to key. */
  slide: 1.2,
  /** The register key with many fingers at once: the break. */
  breakWith: 4,
  break: 0.6,
  /** Another fingering than the regular one. */
  alternate: 0.35,
  inRest: 0.2,
  /** From what price on a step is told as awkward, and how near another way must be. */
  awkward: 1,
  close: 0.6
} as const;
