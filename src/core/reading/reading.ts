import type { Pin } from '../analysis/pins.ts';
import type { SourceChoice } from '../collation/difference.ts';
import type { Marking } from '../markings/marking.ts';
import type { NamedPlayer } from '../players/player.ts';
import type { Fraction } from '../score/fraction.ts';
import type { InstrumentKey } from '../style/instruments/index.ts';
import type { EffectKey } from '../style/effects.ts';
import type { Period } from '../style/profiles.ts';
import type { LocalAnswer, SchoolKey } from '../style/schools.ts';
import type { Style } from './context.ts';
import type { Judgement } from './commands/judge-bars.ts';
import type { Ossia } from './ossia.ts';
import { USUAL_PAGES, type PageSettings } from './page-settings.ts';
import type { RichText } from './rich-text.ts';

/** Bar numbers as printed, or counted for the étude with the upbeat uncounted. */
export const NUMBERINGS = ['printed', 'counted'] as const;
export type Numbering = (typeof NUMBERINGS)[number];

/** How the instructor has pulled at the dynamic plan; levels in steps, 0 = pppp to 9 = ffff. */
export interface PlanShape {
  /** Level of a bar, by measure index. */
  levels: Record<number, number>;
  peak: number | null;
  ceiling: number | null;
}

/** How much of an effect the instructor wants in some bars: 0 off, 1 as usual, 2 twice. Half-open range in quarters. */
export interface LocalAmount {
  effect: EffectKey;
  from: Fraction;
  to: Fraction;
  amount: number;
}

/** When the bars of a recording begin, as the instructor wrote or tapped them. Seconds from its start. */
export interface Recording {
  id: string;
  label: string;
  times: { measure: number; seconds: number }[];
}

/** A range that an audition or a jury asks for, in beats a minute of the meter. */
export interface TempoRange {
  low: number;
  high: number;
}

/** A brief in the instructor's own words, for measures `from` to `to`, both included. */
export interface WrittenBrief {
  from: number;
  to: number;
  text: string;
}

/** What the teacher adds to a line of the survey; a line of the teacher's own has its `text`. */
export interface SurveyNote {
  ticked?: boolean;
  comment?: string;
  text?: string;
  /** It is to stand in the edition's preface. */
  preface?: boolean;
}

export type Decision = { status: 'kept'; marking: string } | { status: 'set aside' };

/** What the instructor knows of the composer: dates, and how the composer is known to have played, with the source of it. */
export interface ComposerNote {
  dates: string;
  practice: string;
  source: string;
}

/** The state of a reading after all its commands. */
export interface Reading {
  period: Period;
  /** Index of the part that the reading is for; the others serve as harmony and context. */
  part: number;
  numbering: Numbering;
  /** Whom it is for; null for nobody in particular. */
  player: NamedPlayer | null;
  /** Instruments that the instructor has corrected: keys by index of the part. */
  instruments: Record<number, InstrumentKey>;
  /** Answers to questions of school, with the day on which each was given. */
  schools: Partial<Record<SchoolKey, { option: string; on: string }>>;
  localAnswers: LocalAnswer[];
  /** Questions put off, with the day. */
  postponed: Partial<Record<SchoolKey, string>>;
  plan: PlanShape;
  requested: TempoRange | null;
  composer: ComposerNote | null;
  amounts: Partial<Record<EffectKey, number>>;
  localAmounts: LocalAmount[];
  /** Bars pulled longer or shorter: planned over unpulled length, by measure index. */
  timePulls: Record<number, number>;
  /** The instructor's own rubato: change of length of each beat as a share of it, by measure index. */
  rubato: Record<number, number[]>;
  recordings: Recording[];
  briefs: WrittenBrief[];
  ossias: Ossia[];
  /** How hard bars are beside what is measured, by measure index. */
  judged: Record<number, Judgement>;
  sourceChoices: SourceChoice[];
  pages: PageSettings;
  preface: RichText | null;
  card: string[] | null;
  /** Rules switched off (0) or made stronger, by id; 1 is a rule's own strength. */
  ruleFactors: Record<string, number>;
  /** Findings of the proof that stand, by id, with the reason why. */
  accepted: Record<string, string>;
  /** By line of the survey. */
  survey: Record<string, SurveyNote>;
  pins: Pin[];
  markings: Marking[];
  /** By proposal key; a key without an entry is open. */
  decisions: Record<string, Decision>;
}

export const EMPTY_READING: Reading = {
  period: 'classical',
  part: 0,
  numbering: 'printed',
  player: null,
  instruments: {},
  schools: {},
  localAnswers: [],
  postponed: {},
  plan: { levels: {}, peak: null, ceiling: null },
  requested: null,
  composer: null,
  amounts: {},
  localAmounts: [],
  timePulls: {},
  rubato: {},
  recordings: [],
  briefs: [],
  ossias: [],
  judged: {},
  sourceChoices: [],
  pages: USUAL_PAGES,
  preface: null,
  card: null,
  ruleFactors: {},
  accepted: {},
  survey: {},
  pins: [],
  markings: [],
  decisions: {}
};

/** The style of a reading, as the rules take it. */
export const styleOf = (reading: Reading): Style => ({
  period: reading.period,
  schools: Object.fromEntries(Object.entries(reading.schools).map(([key, answer]) => [key, answer.option])),
  local: reading.localAnswers,
  ruleFactors: reading.ruleFactors,
  instruments: reading.instruments
});
