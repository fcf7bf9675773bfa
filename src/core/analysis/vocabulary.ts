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

/** A triad and its seventh chord are of one family. */
export const sameFamily = (a: number, b: number): boolean => {
  const x = TONES[QUALITIES[a]];
  const y = TONES[QUALITIES[b]];
  return x[1] === y[1] && x[2] === y[2];
};

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
export const SCALE = { major: [-1, 0, 1, 2, 3, 4, 5], minor: [-4, -3, -2, -1, 0, 1, 2, 3, 5] };

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

/** The chords of a key and how they follow one another. */
export interface Vocabulary {
  types: readonly ChordType[];
  /** rewards[to * n + from]: reward of the step less the cost of the chord entered. */
  rewards: Float64Array;
  /**
   * How much the way into one chord can matter at most. A predecessor that lies further behind the best one than this can
   * never be on the best path, so the search may pass it over.
   */
  spread: number;
}

function vocabulary(types: readonly ChordType[]): Vocabulary {
  const n = types.length;
  const rewards = new Float64Array(n * n);
  types.forEach((from, a) => types.forEach((to, b) => (rewards[b * n + a] = progression(from, to) - to.cost)));
  let spread = 0;
  for (let to = 0; to < n; to++) {
    const column = rewards.subarray(to * n, (to + 1) * n);
    spread = Math.max(spread, Math.max(...column) - Math.min(...column));
  }
  return { types, rewards, spread };
}

/** Chords on every degree, for music whose symbols may state any: those of the key first, the others at a price. */
function everyChord(known: readonly ChordType[], minor: boolean): ChordType[] {
  const types = [...known];
  const names = minor
    ? { [-5]: 'bII', [-4]: 'VI', [-3]: 'III', [-2]: 'VII', [-1]: 'IV', 0: 'I', 1: 'V', 2: 'II', 3: '#VI', 4: '#III', 5: '#VII', 6: '#IV' }
    : { [-5]: 'bII', [-4]: 'bVI', [-3]: 'bIII', [-2]: 'bVII', [-1]: 'IV', 0: 'I', 1: 'V', 2: 'II', 3: 'VI', 4: 'III', 5: 'VII', 6: '#IV' };
  const signs: Partial<Record<Quality, string>> = { dim: 'o', dim7: 'o', hdim7: '%', aug: '+' };
  for (const [text, name] of Object.entries(names)) {
    const root = Number(text);
    for (const quality of ['dom7', 'maj7', 'min7', 'maj', 'min', 'hdim7', 'dim7', 'dim', 'aug'] as const) {
      if (types.some((t) => t.root === root && t.quality === quality)) continue;
      const small = ['min', 'min7', 'dim', 'dim7', 'hdim7'].includes(quality);
      const numeral = (small ? name.replace(/[IV]+/, (x) => x.toLowerCase()) : name) + (signs[quality] ?? '');
      // The dominant seventh a semitone above its goal stands for the dominant (tritone substitute).
      const role: Role =
        root === -5 && quality === 'dom7' ? 'dominant' : root === -2 && quality === 'dom7' && !minor ? 'dominant' : 'other';
      types.push({ numeral, root, quality, role, cost: 1.1, special: null });
    }
  }
  return types;
}

/** The twelve-bar blues: dominant sevenths on tonic, subdominant and dominant are its plain chords. Common practice. */
const BLUES_ROWS: Row[] = [
  ['I', 0, 'dom7', 'tonic', 0],
  ['I', 0, 'maj', 'tonic', 0.15],
  ['IV', -1, 'dom7', 'predominant', 0],
  ['IV', -1, 'maj', 'predominant', 0.2],
  ['V', 1, 'dom7', 'dominant', 0],
  ['V', 1, 'maj', 'dominant', 0.1],
  ['ii', 2, 'min7', 'predominant', 0.2],
  ['ii', 2, 'min', 'predominant', 0.4],
  ['VI', 3, 'dom7', 'applied', 0.3],
  ['vi', 3, 'min7', 'submediant', 0.6],
  ['iii', 4, 'min7', 'other', 0.5],
  ['#ivo', 6, 'dim7', 'other', 0.4],
  ['bVI', -4, 'dom7', 'other', 0.6],
  ['bII', -5, 'dom7', 'dominant', 0.6],
  ['v', 1, 'min7', 'other', 0.4]
];

/** Scales of the modes, on the line of fifths from the final. Source: Glarean, Dodecachordon, 1547. */
export const MODE_SCALES = {
  mixolydian: [0, 2, 4, -1, 1, 3, -2],
  dorian: [0, 2, -3, -1, 1, 3, -2],
  aeolian: [0, 2, -3, -1, 1, -4, -2],
  phrygian: [0, -5, -3, -1, 1, -4, -2],
  lydian: [0, 2, 4, 6, 1, 3, 5]
} as const;
export type Mode = keyof typeof MODE_SCALES;
export const MODES = Object.keys(MODE_SCALES) as Mode[];
export const isMinorMode = (mode: Mode): boolean => (MODE_SCALES[mode] as readonly number[]).includes(-3);

/** Chords in thirds on each degree of a mode; the step below (or above) the final leads back to it. */
function modalChords(mode: Mode): ChordType[] {
  const scale: readonly number[] = MODE_SCALES[mode];
  const minor = isMinorMode(mode);
  const plain: readonly number[] = minor ? [0, 2, -3, -1, 1, -4, -2] : [0, 2, 4, -1, 1, 3, 5];
  const types: ChordType[] = [];
  scale.forEach((root, degree) => {
    const above = [0, 2, 4, 6].map((k) => scale[(degree + k) % 7] - root);
    const quality = QUALITIES.find((q) => TONES[q].length === 3 && TONES[q].every((t, k) => t === above[k]));
    const seventh = QUALITIES.find((q) => TONES[q].length === 4 && TONES[q].every((t, k) => t === above[k]));
    const sign = root > plain[degree] ? '#' : root < plain[degree] ? 'b' : '';
    const name = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'][degree];
    const small = quality === 'min' || quality === 'dim';
    const numeral = sign + (small ? name.toLowerCase() : name) + (quality === 'dim' ? 'o' : '');
    const leads = degree === 4 || degree === 6 || (mode === 'phrygian' && degree === 1) || (mode === 'lydian' && degree === 1);
    const role: Role = degree === 0 ? 'tonic' : leads ? 'dominant' : degree === 5 ? 'submediant' : degree === 2 ? 'other' : 'predominant';
    if (quality) types.push({ numeral, root, quality, role, cost: degree === 0 ? 0 : 0.1, special: null });
    if (seventh)
      types.push({
        numeral: seventh === 'hdim7' ? numeral.replace('o', '%') : numeral,
        root,
        quality: seventh,
        role,
        cost: 0.7,
        special: null
      });
  });
  if (minor) types.push({ numeral: 'V', root: 1, quality: 'maj', role: 'dominant', cost: 0.7, special: null });
  return types;
}

const plainRows = (rows: Row[]): ChordType[] =>
  rows.map(([numeral, root, quality, role, cost]) => ({
    numeral,
    root,
    quality,
    role,
    cost,
    ...(role === 'applied' ? { goal: root - 1 } : {}),
    special: null
  }));

/** Which chords are looked for: those of major and minor, any that symbols state, those of the blues or of a mode. */
export type VocabularyName = 'common' | 'symbols' | 'blues' | 'blues symbols' | Mode;

const pair = (of: (minor: boolean) => readonly ChordType[]) => ({ major: vocabulary(of(false)), minor: vocabulary(of(true)) });
const BLUES = plainRows(BLUES_ROWS);
const modal = (mode: Mode) => {
  const own = vocabulary(modalChords(mode));
  return { major: own, minor: own };
};
export const VOCABULARIES: Record<VocabularyName, { major: Vocabulary; minor: Vocabulary }> = {
  common: pair((minor) => (minor ? VOCABULARY.minor : VOCABULARY.major)),
  symbols: pair((minor) => everyChord(minor ? VOCABULARY.minor : VOCABULARY.major, minor)),
  blues: pair(() => BLUES),
  'blues symbols': pair(() => everyChord(BLUES, false)),
  mixolydian: modal('mixolydian'),
  dorian: modal('dorian'),
  aeolian: modal('aeolian'),
  phrygian: modal('phrygian'),
  lydian: modal('lydian')
};

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
  Object.values(VOCABULARIES)
    .flatMap((v) => [...v.major.types, ...v.minor.types])
    .flatMap((type) => [
      ...TONES[type.quality].map((_, inversion) => romanOf(type, inversion)),
      ...(type.special === 'neapolitan' ? ['N6', 'N64'] : [])
    ])
);

/** True for a Roman numeral that some key of the vocabulary knows: "ii65", "V7/V", "N6". */
export const isRoman = (text: string): boolean => KNOWN_ROMANS.has(text);
