import { PROGRESSION } from '../style/harmony-weights.ts';

export type Quality = 'maj' | 'min' | 'dim' | 'aug' | 'dom7' | 'maj7' | 'min7' | 'hdim7' | 'dim7' | 'it' | 'fr' | 'ger';

/** Chord tones above the root on the line of fifths: root, third, fifth, seventh. */
export const TONES: Record<Quality, readonly number[]> = {
  maj: [0, 4, 1],
  min: [0, -3, 1],
  dim: [0, -3, -6],
  aug: [0, 4, 8],
  dom7: [0, 4, 1, -2],
  maj7: [0, 4, 1, 5],
  min7: [0, -3, 1, -2],
  hdim7: [0, -3, -6, -2],
  dim7: [0, -3, -6, -9],
  // Augmented sixths from their bass, the lowered sixth degree: third, (second or fifth), augmented sixth.
  it: [0, 4, 10],
  fr: [0, 4, 6, 10],
  ger: [0, 4, 1, 10]
};

export const QUALITIES = Object.keys(TONES) as Quality[];

export type Role = 'tonic' | 'predominant' | 'dominant' | 'submediant' | 'applied' | 'colour' | 'other';

/** A chord as it may occur in a key. */
export interface ChordType {
  /** Roman numeral without figures: "V", "ii", "viio". */
  readonly numeral: string;
  /** Root (bass of augmented sixths) relative to the tonic, on the line of fifths. */
  readonly root: number;
  readonly quality: Quality;
  readonly role: Role;
  /** Root of the chord that an applied dominant goes to. */
  readonly goal?: number;
  /** Name of that chord: "V" in "V7/V". */
  readonly goalNumeral?: string;
  /** Cost of entering it, against the plain chords of the key. */
  readonly cost: number;
  readonly special: 'neapolitan' | 'augmented sixth' | null;
}

type Row = [numeral: string, root: number, quality: Quality, role: Role, cost: number];

// Costs in the unit of harmony-weights.ts; set by hand.
const MAJOR_ROWS: Row[] = [
  ['I', 0, 'maj', 'tonic', 0],
  ['I', 0, 'maj7', 'tonic', 1.1],
  ['ii', 2, 'min', 'predominant', 0.1],
  ['ii', 2, 'min7', 'predominant', 0.25],
  ['iii', 4, 'min', 'other', 0.45],
  ['iii', 4, 'min7', 'other', 0.8],
  ['IV', -1, 'maj', 'predominant', 0.1],
  ['IV', -1, 'maj7', 'predominant', 0.8],
  ['V', 1, 'maj', 'dominant', 0],
  ['V', 1, 'dom7', 'dominant', 0.05],
  ['V+', 1, 'aug', 'dominant', 0.9],
  ['vi', 3, 'min', 'submediant', 0.15],
  ['vi', 3, 'min7', 'submediant', 0.5],
  ['viio', 5, 'dim', 'dominant', 0.25],
  ['vii%', 5, 'hdim7', 'dominant', 0.4],
  ['viio', 5, 'dim7', 'dominant', 0.5],
  ['i', 0, 'min', 'tonic', 0.8],
  ['iv', -1, 'min', 'predominant', 0.6],
  ['iio', 2, 'dim', 'predominant', 0.8],
  ['ii%', 2, 'hdim7', 'predominant', 0.7],
  ['bVI', -4, 'maj', 'submediant', 0.8],
  ['bIII', -3, 'maj', 'other', 1],
  ['bVII', -2, 'maj', 'other', 1]
];
const MINOR_ROWS: Row[] = [
  ['i', 0, 'min', 'tonic', 0],
  ['i', 0, 'min7', 'tonic', 0.7],
  ['iio', 2, 'dim', 'predominant', 0.15],
  ['ii%', 2, 'hdim7', 'predominant', 0.2],
  ['III', -3, 'maj', 'other', 0.3],
  ['III', -3, 'maj7', 'other', 0.7],
  ['III+', -3, 'aug', 'other', 0.9],
  ['iv', -1, 'min', 'predominant', 0.05],
  ['iv', -1, 'min7', 'predominant', 0.3],
  ['V', 1, 'maj', 'dominant', 0],
  ['V', 1, 'dom7', 'dominant', 0.05],
  ['v', 1, 'min', 'other', 0.45],
  ['VI', -4, 'maj', 'submediant', 0.15],
  ['VI', -4, 'maj7', 'submediant', 0.55],
  ['VII', -2, 'maj', 'other', 0.4],
  ['VII', -2, 'dom7', 'other', 0.5],
  ['viio', 5, 'dim', 'dominant', 0.2],
  ['viio', 5, 'dim7', 'dominant', 0.15],
  ['I', 0, 'maj', 'tonic', 0.9],
  ['IV', -1, 'maj', 'predominant', 0.75],
  ['ii', 2, 'min', 'predominant', 0.9]
];
const COLOUR_ROWS: Row[] = [
  ['N', -5, 'maj', 'colour', 0.7],
  ['It', -4, 'it', 'colour', 0.7],
  ['Fr', -4, 'fr', 'colour', 0.7],
  ['Ger', -4, 'ger', 'colour', 0.75]
];

/** Goals of applied dominants: numeral and root. */
const MAJOR_GOALS: [string, number][] = [
  ['ii', 2],
  ['iii', 4],
  ['IV', -1],
  ['V', 1],
  ['vi', 3]
];
const MINOR_GOALS: [string, number][] = [
  ['III', -3],
  ['iv', -1],
  ['V', 1],
  ['VI', -4],
  ['VII', -2]
];

function build(rows: Row[], goals: [string, number][], minor: boolean): ChordType[] {
  const types: ChordType[] = [...rows, ...COLOUR_ROWS].map(([numeral, root, quality, role, cost]) => ({
    numeral,
    root,
    quality,
    role,
    cost,
    special: numeral === 'N' ? 'neapolitan' : role === 'colour' ? 'augmented sixth' : null
  }));
  for (const [goalNumeral, goal] of goals) {
    const applied = (numeral: string, root: number, quality: Quality, cost: number) => {
      const same = types.some((t) => t.root === root && t.quality === quality);
      if (!same) types.push({ numeral, root, quality, role: 'applied', goal, goalNumeral, cost, special: null });
    };
    const dim = goalNumeral === goalNumeral.toLowerCase() || (minor && goalNumeral === 'V');
    applied('V', goal + 1, 'maj', 0.5);
    applied('V', goal + 1, 'dom7', 0.4);
    applied('viio', goal + 5, 'dim', 0.65);
    applied('viio', goal + 5, 'dim7', dim ? 0.6 : 0.7);
    if (!dim) applied('vii%', goal + 5, 'hdim7', 0.8);
  }
  return types;
}

export const VOCABULARY = { major: build(MAJOR_ROWS, MAJOR_GOALS, false), minor: build(MINOR_ROWS, MINOR_GOALS, true) };

/** Places on the line of fifths that belong to a key's scale, relative to its tonic; in minor with both sixths and sevenths. */
const SCALE = { major: [-1, 0, 1, 2, 3, 4, 5], minor: [-4, -3, -2, -1, 0, 1, 2, 3, 5] };

/** Chord tones outside the scale, relative to the tonic: what a listener must hear to believe in the chord. */
export const chromaticTones = (type: ChordType, minor: boolean): number[] =>
  TONES[type.quality].map((t) => type.root + t).filter((t) => !SCALE[minor ? 'minor' : 'major'].includes(t));

/** Reward of one chord following another in one key. */
function progression(from: ChordType, to: ChordType): number {
  const P = PROGRESSION;
  let reward = 0;
  if (from.role === 'applied') {
    const here =
      to.root === from.goal || (to.role === 'applied' && to.root === from.goal) || (to.goal === from.goal && to.role === 'applied');
    reward += here ? P.applied : P.appliedElsewhere;
  } else if (from.role === 'colour') {
    const dominant = to.role === 'dominant' || (to.role === 'tonic' && to.quality !== 'maj7') || to.goal === 1 || to.role === 'colour';
    reward += dominant ? P.colour : P.colourElsewhere;
  } else if (from.role === 'dominant') {
    if (to.role === 'tonic') reward += P.resolve;
    else if (to.role === 'submediant') reward += P.deceptive;
    else if (to.role === 'predominant') reward += P.retrograde;
  } else if (from.role === 'predominant' && to.role === 'dominant') reward += P.prepare;
  if (to.root - from.root === -1) reward += P.fallingFifth;
  return reward;
}

const table = (types: ChordType[]): Float64Array => {
  const rewards = new Float64Array(types.length * types.length);
  types.forEach((from, a) => types.forEach((to, b) => (rewards[b * types.length + a] = progression(from, to) - to.cost)));
  return rewards;
};

/** PROGRESSIONS[mode][to * n + from]: reward of the step less the cost of the chord entered. */
export const PROGRESSIONS = { major: table(VOCABULARY.major), minor: table(VOCABULARY.minor) };

/**
 * How much the way into one chord can matter at most. A predecessor that lies further behind the best one
 * than this can never be on the best path, so the search may pass it over.
 */
export const PROGRESSION_SPREAD = Math.max(
  ...(['major', 'minor'] as const).flatMap((mode) => {
    const n = VOCABULARY[mode].length;
    return VOCABULARY[mode].map((_, to) => {
      const column = Array.from({ length: n }, (_, from) => PROGRESSIONS[mode][to * n + from]);
      return Math.max(...column) - Math.min(...column);
    });
  })
);

const TRIAD_FIGURES = ['', '6', '64'];
const SEVENTH_FIGURES = ['7', '65', '43', '42'];

/** Full Roman numeral with figures for the chord tone in the bass: 0 root … 3 seventh. */
export function romanOf(type: ChordType, inversion: number): string {
  const goal = type.goalNumeral ? `/${type.goalNumeral}` : '';
  switch (type.quality) {
    case 'it':
      return 'It6';
    case 'fr':
      return 'Fr43';
    case 'ger':
      return 'Ger65';
    default: {
      const figures = TONES[type.quality].length === 4 ? SEVENTH_FIGURES : TRIAD_FIGURES;
      return type.numeral + (figures[inversion] ?? figures[0]) + goal;
    }
  }
}

const KNOWN_ROMANS = new Set(
  [...VOCABULARY.major, ...VOCABULARY.minor].flatMap((type) => [
    ...TONES[type.quality].map((_, inversion) => romanOf(type, inversion)),
    ...(type.special === 'neapolitan' ? ['N6', 'N64'] : [])
  ])
);

/** True for a Roman numeral that some key of the vocabulary knows: "ii65", "V7/V", "N6". */
export const isRoman = (text: string): boolean => KNOWN_ROMANS.has(text);
