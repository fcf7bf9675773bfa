/** Period profiles: what a page of that time leaves to the player, and which defaults follow. */
export const PERIODS = ['baroque', 'classical', 'romantic'] as const;
export type Period = (typeof PERIODS)[number];

export interface PeriodProfile {
  name: string;
  /** One sentence for the preface. */
  summary: string;
  /** Dynamic proposed where a piece or excerpt begins without one. */
  opening: string;
  /** Dynamic steps that a proposed hairpin spans. */
  hairpinSteps: number;
}

export const PROFILES: Record<Period, PeriodProfile> = {
  baroque: {
    name: 'Baroque',
    summary:
      'Weight and lightness come from meter, dance and harmony; dynamics stand in levels, and dissonance is stronger than its resolution.',
    opening: 'f',
    hairpinSteps: 1
  },
  classical: {
    name: 'Classical',
    summary: 'Phrases answer each other; endings taper, slurred pairs lean and release, contrasts are sudden and mean something.',
    opening: 'mf',
    hairpinSteps: 1
  },
  romantic: {
    name: 'Romantic',
    summary: 'The long line leads: what rises grows, what falls fades, and time may be taken where phrases and sections join.',
    opening: 'mp',
    hairpinSteps: 2
  }
};

export const isPeriod = (text: string): text is Period => (PERIODS as readonly string[]).includes(text);
