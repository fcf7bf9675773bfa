import type { SourceChoice } from '../collation/difference.ts';
import type { Pin } from '../analysis/facts.ts';
import { cmp, type Fraction } from '../score/fraction.ts';
import type { EffectKey } from '../style/effects.ts';
import type { Period } from '../style/profiles.ts';
import type { LocalAnswer, SchoolKey } from '../style/schools.ts';
import type { Style } from './context.ts';
import type { Marking } from './markings.ts';
import { USUAL_PAGES, type PageSettings } from './page-settings.ts';
import type { RichText } from './rich-text.ts';

/** One act of the instructor. A reading is nothing but the list of its commands. */
export type Command =
  | { type: 'set-period'; period: Period }
  | { type: 'answer-school'; key: SchoolKey; option: string; on: string }
  | { type: 'answer-here'; answer: LocalAnswer }
  | { type: 'withdraw-answer'; key: SchoolKey; from: Fraction | null }
  | { type: 'postpone-question'; key: SchoolKey; on: string }
  | { type: 'weigh-rule'; rule: string; factor: number }
  | { type: 'pull-level'; measure: number; level: number | null }
  | { type: 'set-peak'; measure: number | null }
  | { type: 'set-ceiling'; level: number | null }
  | { type: 'request-tempo'; range: TempoRange | null }
  | { type: 'write-brief'; from: number; to: number; text: string | null }
  | { type: 'set-amount'; effect: EffectKey; amount: number | null; range: { from: Fraction; to: Fraction } | null }
  | { type: 'pull-time'; measure: number; ratio: number | null }
  | { type: 'take-rubato'; bars: Record<number, number[]> | null }
  | { type: 'keep-recording'; id: string; recording: Recording | null }
  /** What is decided about a difference between sources; null leaves it open again. */
  | { type: 'choose-source'; source: string; difference: string; choice: SourceChoice | null }
  | { type: 'set-pages'; pages: PageSettings }
  /** The preface in the instructor's words; null lets the drafted one stand again. */
  | { type: 'write-preface'; text: RichText | null }
  /** What is to be remembered on the card for the stand; null lets the drafted lines stand again. */
  | { type: 'write-card'; lines: string[] | null }
  | { type: 'together'; what: string; commands: Command[] }
  | { type: 'accept-finding'; finding: string; because: string | null }
  | { type: 'draft'; kept: { key: string; marking: Marking }[] }
  | { type: 'set-part'; part: number }
  | { type: 'set-numbering'; numbering: Numbering }
  | { type: 'note-survey'; line: string; note: SurveyNote | null }
  | { type: 'pin'; pin: Pin }
  | { type: 'unpin'; id: string }
  | { type: 'add-marking'; marking: Marking }
  | { type: 'change-marking'; id: string; change: Partial<Omit<Marking, 'id'>> }
  | { type: 'remove-marking'; id: string }
  | { type: 'keep'; key: string; marking: Marking }
  | { type: 'set-aside'; key: string }
  | { type: 'reopen'; key: string }
  | { type: 'undo' }
  | { type: 'redo' };

/** Bar numbers as printed, or counted for the étude with the upbeat uncounted. */
export const NUMBERINGS = ['printed', 'counted'] as const;
export type Numbering = (typeof NUMBERINGS)[number];

/** A command as it is sent and stored: `origin` is its name at the window that made it, null where none made it. */
export interface Act {
  origin: string | null;
  command: Command;
}

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

/** The state of a reading after all its commands. */
export interface Reading {
  period: Period;
  /** Index of the part that the reading is for; the others serve as harmony and context. */
  part: number;
  numbering: Numbering;
  /** Answers to questions of school, with the day on which each was given. */
  schools: Partial<Record<SchoolKey, { option: string; on: string }>>;
  localAnswers: LocalAnswer[];
  /** Questions put off, with the day. */
  postponed: Partial<Record<SchoolKey, string>>;
  plan: PlanShape;
  requested: TempoRange | null;
  amounts: Partial<Record<EffectKey, number>>;
  localAmounts: LocalAmount[];
  /** Bars pulled longer or shorter: planned over unpulled length, by measure index. */
  timePulls: Record<number, number>;
  /** The instructor's own rubato: change of length of each beat as a share of it, by measure index. */
  rubato: Record<number, number[]>;
  recordings: Recording[];
  briefs: WrittenBrief[];
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
  schools: {},
  localAnswers: [],
  postponed: {},
  plan: { levels: {}, peak: null, ceiling: null },
  requested: null,
  amounts: {},
  localAmounts: [],
  timePulls: {},
  rubato: {},
  recordings: [],
  briefs: [],
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

/** The state after one more act; undo and redo are resolved before this. Acts on what is gone change nothing. */
export function apply(state: Reading, command: Command): Reading {
  switch (command.type) {
    case 'set-period':
      return { ...state, period: command.period };
    case 'answer-school': {
      const postponed = { ...state.postponed };
      delete postponed[command.key];
      return { ...state, postponed, schools: { ...state.schools, [command.key]: { option: command.option, on: command.on } } };
    }
    case 'answer-here': {
      const { answer } = command;
      const others = state.localAnswers.filter((a) => a.key !== answer.key || cmp(a.from, answer.from) !== 0);
      return { ...state, localAnswers: [...others, answer] };
    }
    case 'withdraw-answer': {
      const { from, key } = command;
      if (from) return { ...state, localAnswers: state.localAnswers.filter((a) => a.key !== key || cmp(a.from, from) !== 0) };
      const schools = { ...state.schools };
      delete schools[key];
      return { ...state, schools };
    }
    case 'postpone-question':
      return { ...state, postponed: { ...state.postponed, [command.key]: command.on } };
    case 'pull-level': {
      const levels = { ...state.plan.levels };
      if (command.level === null) delete levels[command.measure];
      else levels[command.measure] = command.level;
      return { ...state, plan: { ...state.plan, levels } };
    }
    case 'set-peak':
      return { ...state, plan: { ...state.plan, peak: command.measure } };
    case 'set-ceiling':
      return { ...state, plan: { ...state.plan, ceiling: command.level } };
    case 'request-tempo':
      return { ...state, requested: command.range };
    case 'write-brief': {
      const { from, to, text } = command;
      const others = state.briefs.filter((b) => b.from !== from || b.to !== to);
      return { ...state, briefs: text === null ? others : [...others, { from, to, text }] };
    }
    case 'choose-source': {
      const { source, difference, choice } = command;
      const others = state.sourceChoices.filter((c) => c.source !== source || c.difference !== difference);
      return { ...state, sourceChoices: choice ? [...others, choice] : others };
    }
    case 'set-pages':
      return { ...state, pages: command.pages };
    case 'write-preface':
      return { ...state, preface: command.text };
    case 'write-card':
      return { ...state, card: command.lines };
    case 'set-amount': {
      const { effect, amount, range } = command;
      if (range) {
        const others = state.localAmounts.filter((a) => a.effect !== effect || cmp(a.from, range.from) !== 0 || cmp(a.to, range.to) !== 0);
        return { ...state, localAmounts: amount === null ? others : [...others, { effect, amount, ...range }] };
      }
      const amounts = { ...state.amounts };
      if (amount === null) delete amounts[effect];
      else amounts[effect] = amount;
      return { ...state, amounts };
    }
    case 'pull-time': {
      const timePulls = { ...state.timePulls };
      if (command.ratio === null) delete timePulls[command.measure];
      else timePulls[command.measure] = command.ratio;
      return { ...state, timePulls };
    }
    case 'take-rubato':
      return { ...state, rubato: command.bars === null ? {} : { ...state.rubato, ...command.bars } };
    case 'keep-recording': {
      const others = state.recordings.filter((r) => r.id !== command.id);
      return { ...state, recordings: command.recording ? [...others, command.recording] : others };
    }
    case 'together':
      return command.commands.reduce(apply, state);
    case 'weigh-rule': {
      const ruleFactors = { ...state.ruleFactors, [command.rule]: command.factor };
      if (command.factor === 1) delete ruleFactors[command.rule];
      return { ...state, ruleFactors };
    }
    case 'accept-finding': {
      const accepted = { ...state.accepted };
      if (command.because === null) delete accepted[command.finding];
      else accepted[command.finding] = command.because;
      return { ...state, accepted };
    }
    case 'draft':
      return command.kept.reduce((s, k) => apply(s, { type: 'keep', ...k }), state);
    case 'set-part':
      return { ...state, part: command.part };
    case 'set-numbering':
      return { ...state, numbering: command.numbering };
    case 'note-survey': {
      const survey = { ...state.survey };
      if (command.note) survey[command.line] = command.note;
      else delete survey[command.line];
      return { ...state, survey };
    }
    case 'pin':
      return { ...state, pins: [...state.pins.filter((p) => p.id !== command.pin.id), command.pin] };
    case 'unpin':
      return { ...state, pins: state.pins.filter((p) => p.id !== command.id) };
    case 'add-marking':
      return { ...state, markings: [...state.markings.filter((m) => m.id !== command.marking.id), command.marking] };
    case 'change-marking':
      return { ...state, markings: state.markings.map((m) => (m.id === command.id ? { ...m, ...command.change } : m)) };
    case 'remove-marking': {
      const removed = state.markings.find((m) => m.id === command.id);
      const decisions = { ...state.decisions };
      if (removed?.proposal && decisions[removed.proposal]?.status === 'kept') delete decisions[removed.proposal];
      return { ...state, markings: state.markings.filter((m) => m.id !== command.id), decisions };
    }
    case 'keep': {
      const before = state.decisions[command.key];
      const others = before?.status === 'kept' ? state.markings.filter((m) => m.id !== before.marking) : state.markings;
      return {
        ...state,
        markings: [...others, { proposed: command.marking.value, ...command.marking, proposal: command.key }],
        decisions: { ...state.decisions, [command.key]: { status: 'kept', marking: command.marking.id } }
      };
    }
    case 'set-aside':
    case 'reopen': {
      const before = state.decisions[command.key];
      const decisions = { ...state.decisions };
      if (command.type === 'set-aside') decisions[command.key] = { status: 'set aside' };
      else delete decisions[command.key];
      const markings = before?.status === 'kept' ? state.markings.filter((m) => m.id !== before.marking) : state.markings;
      return { ...state, markings, decisions };
    }
    default:
      return state;
  }
}

/** The acts that count, after undo and redo, and those that redo could bring back (next one last). */
export function resolve(log: readonly Command[]): { done: Command[]; undone: Command[] } {
  const done: Command[] = [];
  let undone: Command[] = [];
  for (const command of log) {
    if (command.type === 'undo') {
      const last = done.pop();
      if (last) undone.push(last);
    } else if (command.type === 'redo') {
      const again = undone.pop();
      if (again) done.push(again);
    } else {
      done.push(command);
      undone = [];
    }
  }
  return { done, undone };
}

/** The reading that a log of commands makes. */
export const replay = (log: readonly Command[]): Reading => resolve(log).done.reduce(apply, EMPTY_READING);

/** A command in words, for the history and for undo. */
export function describe(command: Command): string {
  switch (command.type) {
    case 'set-period':
      return `period ${command.period}`;
    case 'answer-school':
      return `${command.key}: ${command.option}`;
    case 'answer-here':
      return `${command.answer.key}: ${command.answer.option} here`;
    case 'withdraw-answer':
      return 'taking an answer back';
    case 'postpone-question':
      return 'putting a question off';
    case 'pull-level':
      return command.level === null ? 'letting a level go' : 'pulling a level';
    case 'set-peak':
      return command.measure === null ? 'letting the peak go' : 'setting the peak';
    case 'set-ceiling':
      return command.level === null ? 'lifting the ceiling' : 'setting a ceiling';
    case 'request-tempo':
      return command.range ? `asked for ${command.range.low} to ${command.range.high}` : 'no tempo is asked for';
    case 'write-brief':
      return command.text === null ? 'letting a brief go' : 'writing a brief';
    case 'choose-source':
      return command.choice ? 'choosing between sources' : 'leaving a difference open';
    case 'set-pages':
      return 'setting the pages';
    case 'write-preface':
      return command.text === null ? 'drafting the preface again' : 'writing the preface';
    case 'write-card':
      return command.lines === null ? 'drafting the card again' : 'writing the card';
    case 'set-amount':
      return command.amount === null ? `${command.effect} as usual` : `${command.effect} ${Math.round(100 * command.amount)} %`;
    case 'pull-time':
      return command.ratio === null ? 'letting a bar’s time go' : 'pulling a bar’s time';
    case 'take-rubato':
      return command.bars === null ? 'letting the own rubato go' : 'taking over a tapped rubato';
    case 'keep-recording':
      return command.recording ? `the recording “${command.recording.label}”` : 'removing a recording';
    case 'together':
      return command.what;
    case 'weigh-rule':
      return command.factor === 0 ? `switching ${command.rule} off` : `weighing ${command.rule}`;
    case 'accept-finding':
      return command.because === null ? 'looking at a finding again' : 'accepting a finding';
    case 'draft':
      return `drafting ${command.kept.length} ${command.kept.length === 1 ? 'marking' : 'markings'}`;
    case 'set-part':
      return 'choosing the part';
    case 'set-numbering':
      return `bar numbers as ${command.numbering}`;
    case 'note-survey':
      return command.note ? 'a note on the survey' : 'removing a note on the survey';
    case 'pin':
      return pinWords(command.pin);
    case 'unpin':
      return 'taking a correction back';
    case 'add-marking':
      return `adding ${command.marking.kind} ${command.marking.value}`;
    case 'change-marking':
      return 'changing a marking';
    case 'remove-marking':
      return 'removing a marking';
    case 'keep':
      return `keeping ${command.marking.kind} ${command.marking.value}`;
    case 'set-aside':
      return 'setting a proposal aside';
    case 'reopen':
      return 'opening a proposal again';
    default:
      return command.type;
  }
}

/** A correction in words. */
export function pinWords(pin: Pin): string {
  switch (pin.kind) {
    case 'key':
      return `key ${pin.key}`;
    case 'chord':
      return `chord ${pin.roman}`;
    case 'phrase-start':
      return pin.here ? 'a phrase begins' : 'no phrase begins';
    case 'cadence':
      return `cadence ${pin.type}`;
    case 'section':
      return pin.label ? `section ${pin.label} begins` : 'no section begins';
    case 'role':
      return `note is ${pin.role}`;
    case 'voice':
      return `note in the ${pin.voice} voice`;
    case 'same-music':
      return 'the same music in two places';
    default:
      return `${pin.what} dismissed`;
  }
}

/** The style of a reading, as the rules take it. */
export const styleOf = (reading: Reading): Omit<Style, 'details'> => ({
  period: reading.period,
  schools: Object.fromEntries(Object.entries(reading.schools).map(([key, answer]) => [key, answer.option])),
  local: reading.localAnswers,
  ruleFactors: reading.ruleFactors
});
