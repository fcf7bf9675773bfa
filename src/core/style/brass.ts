/** Brass from physics: partials of a tube that valves or a slide lengthen. Handbook 17.1. */

export interface Tube {
  /** Sounding height of the first partial of the open tube, MIDI number. */
  fundamental: number;
  by: 'valves' | 'slide';
}

/** Tubes by key of the instrument, as they are usually built. [C] */
export const TUBES: Record<string, readonly Tube[]> = {
  trumpet: [{ fundamental: 46, by: 'valves' }],
  cornet: [{ fundamental: 46, by: 'valves' }],
  flugelhorn: [{ fundamental: 46, by: 'valves' }],
  // In F, and its side in B flat.
  horn: [
    { fundamental: 29, by: 'valves' },
    { fundamental: 34, by: 'valves' }
  ],
  'alto-horn': [{ fundamental: 39, by: 'valves' }],
  trombone: [{ fundamental: 34, by: 'slide' }],
  'bass-trombone': [{ fundamental: 34, by: 'slide' }],
  euphonium: [{ fundamental: 34, by: 'valves' }],
  tuba: [{ fundamental: 22, by: 'valves' }]
};

/** Semitones by which each valve alone lowers. */
export const VALVE_SEMITONES: Record<string, number> = { '1': 2, '2': 1, '3': 3 };
export const COMBINATIONS = ['0', '2', '1', '12', '3', '23', '13', '123'] as const;

/** Cents by which a partial stands above or below equal temperament, and by which valves together are sharp: from the formulas. */
export const partialCents = (partial: number): number => {
  const semitones = 12 * Math.log2(partial);
  return 100 * (semitones - Math.round(semitones));
};
/** Each valve lengthens the tube by what lowers the open one; together they are too short. */
export function valveCents(valves: string): number {
  if (valves === '0') return 0;
  const semitones = [...valves].reduce((sum, v) => sum + VALVE_SEMITONES[v], 0);
  const length = 1 + [...valves].reduce((sum, v) => sum + 2 ** (VALVE_SEMITONES[v] / 12) - 1, 0);
  return 1200 * Math.log2(2 ** (semitones / 12) / length);
}

/** Partials that are played; the seventh and eleventh are too far off. */
export const PARTIALS = [1, 2, 3, 4, 5, 6, 8, 9, 10, 12, 14, 15, 16] as const;

/** Prices [M]. */
export const BRASS_PRICES = {
  acent: 0.02,
  valve: 0.1,
  /** The third valve alone stands for the first two where tuning asks for it. */
  thirdAlone: 0.7,
  moved: 0.12,
  slideAPosition: 0.16,
  farSlide: 0.06,
  againstTheGrain: 0.15,
  pedal: 1.5,
  /** A player's own fingering outranks what is usual. */
  notOwn: 3,
  highPartial: 0.04,
  /** Seconds of rest after which a soft entrance has to be prepared, and the partial from which an accent may burst. */
  longRest: 4,
  burstsFrom: 8,
  /** Of the most load: what is a peak, from where on there is something to save, and in how many bars before. */
  peak: 0.9,
  saveFrom: 0.6,
  saveBars: 8,
  /** By so much of the most load an earlier bar outdoes the loudest one, and it is asked about. */
  spent: 0.1,
  /** The horn's other side. */
  change: 0.3,
  /** Above this height a horn is played on its higher side; MIDI number. [C] */
  higherSideFrom: 61,
  wrongSide: 1,
  close: 0.7,
  /** Load: semitones above the middle that double it, and seconds in which it is halved … recovered. */
  doubles: 9,
  recovery: 20
} as const;
