import type { Period } from './profiles.ts';

/** How the dynamic plan shades between the marks; steps of the dynamic scale. Set by hand; the arch follows Todd 1992. */
export const PLAN = {
  /** Height of the arch over a phrase, by profile. */
  arch: {
    baroque: 0.15,
    classical: 0.3,
    romantic: 0.5,
    'french-1900': 0.45,
    swing: 0.2,
    'highland-pipes': 0,
    modern: 0.15
  } satisfies Record<Period, number>,
  /** Bars that words such as “cresc.” reach at most where nothing ends them. */
  wordBars: 8,
  /** Steps that words grow or fade without a goal, against those of a hairpin, by their size. */
  bySize: { little: 0.5, plain: 1, much: 2 },
  /** Level to which what dies away fades, in steps of the scale, and how far at least. */
  nothing: 1,
  dying: 2,
  /** Share of a phrase at which its arch is highest. */
  archPeak: 0.62,
  /** Steps by which a short hairpin without a goal inflects a figure. */
  inflection: 0.6,
  /** Steps between foreground and background. Handbook 5.7. */
  background: 1.5,
  /** A peak that the instructor sets stands at least so far above everything else. */
  overOthers: 0.5,
  /** Bars over which a pulled level eases back to the plan on either side. */
  easeBars: 2
} as const;

/** What speaks for a bar as the peak: register, length of its top note, cadence, colour, place in the piece; and how near to the loudest it must be, in steps. Handbook 5.4; set by hand. */
export const PEAK = { register: 1, length: 0.25, cadence: 0.25, colour: 0.3, place: 0.25, from: 0.45, until: 0.95, near: 0.5 } as const;
