/** Breath. Handbook 15.1; all [M], adjustable for each player. */

/** Seconds that are comfortable at mf in the middle register, by key of the instrument. */
const SECONDS: Record<string, number> = {
  piccolo: 9,
  flute: 8,
  'alto-flute': 7,
  'bass-flute': 6,
  oboe: 20,
  'oboe-damore': 18,
  'english-horn': 17,
  clarinet: 14,
  'e-flat-clarinet': 14,
  'alto-clarinet': 13,
  'bass-clarinet': 12,
  'basset-horn': 13,
  'soprano-sax': 13,
  'alto-sax': 12,
  'tenor-sax': 11,
  'baritone-sax': 10,
  bassoon: 14,
  contrabassoon: 10,
  recorder: 12,
  horn: 11,
  trumpet: 12,
  cornet: 12,
  flugelhorn: 11,
  trombone: 9,
  'bass-trombone': 7,
  euphonium: 8,
  tuba: 5
};
/** Of singers, and of what is not in the list. */
const OTHERS = 10;
export const breathSeconds = (instrument: string): number => SECONDS[instrument] ?? OTHERS;

export const BREATH = {
  /** What forte leaves of the seconds; more for instruments that spend much. */
  loud: 0.75,
  loudSpenders: 0.5,
  spenders: ['tuba', 'flute', 'piccolo', 'bass-trombone'] as readonly string[],
  /** Silence from which there is time for a full breath; and what a quick one takes. */
  fullSeconds: 0.5,
  quickSeconds: 0.3,
  /** Prices of places: rests, ends of phrases, after long notes, before upbeats, before leaps, elsewhere. */
  rest: 0,
  phraseEnd: 0.25,
  afterLong: 0.7,
  beforeUpbeat: 1,
  beforeLeap: 1.2,
  barLine: 1.5,
  elsewhere: 2.5,
  /** Seconds from which a note is long, and semitones from which a step is a leap. */
  longSeconds: 0.9,
  leap: 5,
  /** Each breath that is not in a rest. */
  each: 0.6,
  /** Of what is comfortable, from where it becomes work; the price of so much again. */
  workFrom: 0.75,
  work: 3,
  /** For each part of the comfortable time that it is passed by. */
  over: 12,
  /** Breaths that are looked back to, at most, in seconds as a multiple of what is comfortable. */
  longest: 4
} as const;
