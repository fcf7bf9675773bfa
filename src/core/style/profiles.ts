import type { SchoolAnswers } from './schools.ts';

/** Period profiles: what a page of that time leaves to the player, and which defaults follow. Handbook 4. */
export const PERIODS = ['baroque', 'classical', 'romantic', 'french-1900', 'swing', 'highland-pipes', 'modern'] as const;
export type Period = (typeof PERIODS)[number];

export interface PeriodProfile {
  name: string;
  /** One sentence for the preface. */
  summary: string;
  /** Dynamic proposed where a piece or excerpt begins without one; null where loudness is not the player's. */
  opening: string | null;
  /** Dynamic steps that a proposed hairpin spans. */
  hairpinSteps: number;
  /** Rules that do not name this profile are taken from another one, with their strength times this factor. */
  inherits?: { from: Period; factor: number };
  /** How its players usually answer the questions on which schools differ. */
  schools: SchoolAnswers;
}

export const PROFILES: Record<Period, PeriodProfile> = {
  baroque: {
    name: 'Baroque',
    summary:
      'Weight and lightness come from meter, dance and harmony; dynamics stand in levels, and dissonance is stronger than its resolution.',
    opening: 'f',
    hairpinSteps: 1,
    schools: {
      text: 'free',
      tempo: 'clarity',
      rubato: 'beat-strict',
      repeats: 'ornament',
      'third-time': 'different',
      return: 'proclaim',
      'trill-start': 'upper',
      appoggiatura: 'long',
      touch: 'half',
      staccato: 'separated',
      'slur-pairs': 'lift-second',
      'short-notes': 'even',
      dotting: 'sharpened',
      inegales: 'none',
      sforzando: 'in-context',
      'chord-break': 'from-below',
      'chord-release': 'top',
      bowing: 'rule-of-downbow',
      'suspect-notes': 'keep-and-footnote',
      plan: 'fixed',
      joins: 'break'
    }
  },
  classical: {
    name: 'Classical',
    summary: 'Phrases answer each other; endings taper, slurred pairs lean and release, contrasts are sudden and mean something.',
    opening: 'mf',
    hairpinSteps: 1,
    schools: {
      text: 'as-printed',
      tempo: 'clarity',
      rubato: 'beat-strict',
      repeats: 'vary-dynamics',
      'third-time': 'different',
      return: 'proclaim',
      'trill-start': 'upper',
      appoggiatura: 'long',
      touch: 'detached',
      staccato: 'half',
      'slur-pairs': 'lift-second',
      'short-notes': 'even',
      dotting: 'literal',
      inegales: 'none',
      sforzando: 'in-context',
      'chord-break': 'two-and-two',
      'chord-release': 'top',
      bowing: 'rule-of-downbow',
      'suspect-notes': 'keep-and-footnote',
      plan: 'fixed',
      joins: 'break'
    }
  },
  romantic: {
    name: 'Romantic',
    summary: 'The long line leads: what rises grows, what falls fades, and time may be taken where phrases and sections join.',
    opening: 'mp',
    hairpinSteps: 2,
    schools: {
      text: 'as-printed',
      tempo: 'printed',
      rubato: 'arch',
      repeats: 'vary-dynamics',
      'third-time': 'growing',
      return: 'steal-in',
      'trill-start': 'main',
      appoggiatura: 'short',
      touch: 'full',
      staccato: 'half',
      'slur-pairs': 'even',
      'short-notes': 'even',
      dotting: 'literal',
      inegales: 'none',
      sforzando: 'in-context',
      'chord-break': 'two-and-two',
      'chord-release': 'moving-voice',
      bowing: 'gesture',
      'suspect-notes': 'keep-and-footnote',
      plan: 'fresh',
      joins: 'flow-on'
    }
  },
  'french-1900': {
    name: 'French, about 1900',
    summary: 'The conservatoire wind school: the printed page exactly, an even sound through the registers, colour rather than force.',
    opening: 'mp',
    hairpinSteps: 1,
    inherits: { from: 'romantic', factor: 0.85 },
    schools: {
      text: 'as-printed',
      tempo: 'printed',
      rubato: 'stolen',
      repeats: 'same',
      'third-time': 'different',
      return: 'steal-in',
      'trill-start': 'main',
      appoggiatura: 'short',
      touch: 'full',
      staccato: 'half',
      'slur-pairs': 'even',
      'short-notes': 'light',
      dotting: 'literal',
      inegales: 'none',
      sforzando: 'in-context',
      'chord-break': 'together',
      'chord-release': 'hold',
      bowing: 'as-printed',
      'suspect-notes': 'emend-and-footnote',
      plan: 'fixed',
      joins: 'flow-on'
    }
  },
  swing: {
    name: 'Swing',
    summary: 'Eighths run long and short, off-beats speak, phrases end where they end; the pulse does not bend.',
    opening: 'mf',
    hairpinSteps: 1,
    schools: {
      text: 'free',
      tempo: 'printed',
      rubato: 'beat-strict',
      repeats: 'ornament',
      'third-time': 'different',
      return: 'proclaim',
      touch: 'full',
      staccato: 'dense-short',
      'short-notes': 'kicked',
      dotting: 'literal',
      sforzando: 'in-context',
      'suspect-notes': 'keep-and-footnote',
      plan: 'fresh',
      joins: 'flow-on',
      swing: 'two-to-one'
    }
  },
  'highland-pipes': {
    name: 'Highland pipes',
    summary: 'One loudness for all: expression is in time, in the grace notes and in which notes are held and which are cut.',
    opening: null,
    hairpinSteps: 0,
    schools: {
      text: 'free',
      tempo: 'printed',
      rubato: 'beat-strict',
      repeats: 'same',
      'third-time': 'same',
      return: 'proclaim',
      dotting: 'sharpened',
      'suspect-notes': 'keep-and-footnote',
      plan: 'fixed',
      joins: 'flow-on',
      'pipe-movements': 'open',
      'pipe-placing': 'on-beat'
    }
  },
  modern: {
    name: 'Modern',
    summary: 'The page says what is wanted, down to each sign; the player makes its differences heard.',
    opening: 'mf',
    hairpinSteps: 1,
    inherits: { from: 'classical', factor: 0.6 },
    schools: {
      text: 'as-printed',
      tempo: 'printed',
      rubato: 'beat-strict',
      repeats: 'same',
      'third-time': 'same',
      return: 'proclaim',
      'trill-start': 'main',
      appoggiatura: 'short',
      touch: 'full',
      staccato: 'half',
      'slur-pairs': 'even',
      'short-notes': 'even',
      dotting: 'literal',
      inegales: 'none',
      sforzando: 'absolute',
      'chord-break': 'together',
      'chord-release': 'hold',
      bowing: 'as-printed',
      'suspect-notes': 'emend-and-footnote',
      plan: 'fixed',
      joins: 'break'
    }
  }
};

export const isPeriod = (text: string): text is Period => (PERIODS as readonly string[]).includes(text);

/** Strength of a rule in a period, taken over from another one where the rule does not name it; null where it is unknown. */
export function strengthIn(strengths: Partial<Record<Period, number>>, period: Period): number | null {
  const own = strengths[period];
  if (own !== undefined) return own;
  const { inherits } = PROFILES[period];
  const taken = inherits && strengths[inherits.from];
  return taken === undefined ? null : Math.round(100 * taken * inherits!.factor) / 100;
}
