/** Inflections of jazz: what the pitch does before, inside or after a note. Handbook 19.4; times and heights [M]. */

/** A turn of the pitch: seconds from the beginning of the note, or (negative) from its end; semitones from the written pitch. */
type Turn = readonly [seconds: number, semitones: number];

export interface Inflection {
  /** Elements of MusicXML in `articulations` or `technical`; only such as 3.1 has already, for an edition keeps its source's version. */
  musicXml: string;
  /** Value of MEI 5, data.ARTICULATION; null where another sign stands for it. */
  mei: string | null;
  turns: readonly Turn[];
  /** Fingered through the half steps instead of sliding. */
  chromatic?: true;
  /** Decibels that it is softer. */
  softer?: number;
}

export const INFLECTIONS = {
  fall: {
    musicXml: '<articulations><falloff/></articulations>',
    mei: 'fall',
    turns: [
      [-0.2, 0],
      [0, -4]
    ],
    chromatic: true
  },
  'long-fall': {
    musicXml: '<articulations><falloff/><other-articulation>long</other-articulation></articulations>',
    mei: 'longfall',
    turns: [
      [-0.55, 0],
      [0, -9]
    ],
    chromatic: true
  },
  doit: {
    musicXml: '<articulations><doit/></articulations>',
    mei: 'doit',
    turns: [
      [-0.22, 0],
      [0, 4]
    ]
  },
  scoop: {
    musicXml: '<articulations><scoop/></articulations>',
    mei: 'scoop',
    turns: [
      [0, -1.5],
      [0.1, 0]
    ]
  },
  plop: {
    musicXml: '<articulations><plop/></articulations>',
    mei: 'plop',
    turns: [
      [0, 5],
      [0.12, 0]
    ],
    chromatic: true
  },
  bend: {
    musicXml: '<technical><bend><bend-alter>-1</bend-alter></bend></technical>',
    mei: 'bend',
    turns: [
      [0.06, 0],
      [0.16, -1],
      [0.32, 0]
    ]
  },
  'quick-bend': {
    musicXml: '<technical><bend><bend-alter>-0.5</bend-alter></bend></technical>',
    mei: 'flip',
    turns: [
      [0.02, 0],
      [0.07, -0.5],
      [0.13, 0]
    ]
  },
  smear: {
    musicXml: '<technical><other-technical>smear</other-technical></technical>',
    mei: 'smear',
    turns: [
      [0, -2],
      [0.12, -1.7],
      [0.4, 0]
    ]
  },
  ghost: { musicXml: '<technical><other-technical>ghost note</other-technical></technical>', mei: null, turns: [], softer: 9 }
} as const satisfies Record<string, Inflection>;

export type InflectionName = keyof typeof INFLECTIONS;

/** By the name that MusicXML gives the sign on a note. */
export const PRINTED_INFLECTIONS: Record<string, InflectionName> = {
  falloff: 'fall',
  doit: 'doit',
  scoop: 'scoop',
  plop: 'plop',
  bend: 'bend',
  smear: 'smear'
};

/** No more of a note is bent than so much. */
export const MOST_INFLECTED = 0.7;
