import { LOUDNESS_ACTS, SOFTER_ONLY_IN_CLASSICAL, TIME_ACTS, type LoudnessAct, type ModifierAct, type Size, type TimeAct } from './acts.ts';
import { lookUp, phrasesOf, plain, type Phrase, type Term } from './lookup.ts';

/** What an expression does to time and to loudness. */
export interface WordsRead {
  time: TimeAct | null;
  loudness: LoudnessAct | null;
  /** It acts only the last time that its bar is played. */
  lastTime: boolean;
  /** Little by little, over the whole way to its goal. */
  gradual: boolean;
}

const TIME = new Map(TIME_ACTS.map(([term, act]) => [plain(term), act]));
const LOUDNESS = new Map(LOUDNESS_ACTS.map(([term, act]) => [plain(term), act]));
const IN_CLASSICAL_SOFTER_ONLY = new Set(SOFTER_ONLY_IN_CLASSICAL.map(plain));
const LAST_TIME = /last time/i;

const sizeBy = (size: Size, modifiers: ReadonlySet<ModifierAct>): Size =>
  modifiers.has('little') ? 'little' : modifiers.has('much') ? 'much' : size;

function timeActOf(term: Term, modifiers: ReadonlySet<ModifierAct>, classical: boolean): TimeAct | null {
  const act = TIME.get(term.key);
  if (!act || (classical && IN_CLASSICAL_SOFTER_ONLY.has(term.key))) return null;
  if (!('size' in act)) return act;
  // "immer langsamer": it goes on getting slower.
  if (act.kind === 'new' && (modifiers.has('always') || modifiers.has('gradually')))
    return { kind: act.way < 0 ? 'slow' : 'fast', size: sizeBy('plain', modifiers) };
  return { ...act, size: sizeBy(act.size, modifiers) };
}

/** How far "very soft" goes beyond soft, and how far "a little loud" stays behind loud. */
const FURTHER: Record<string, string> = { p: 'pp', pp: 'ppp', f: 'ff', ff: 'fff' };
const NEARER: Record<string, string> = { p: 'mp', pp: 'p', f: 'mf', ff: 'f' };

function loudnessActOf(term: Term, modifiers: ReadonlySet<ModifierAct>): LoudnessAct | null {
  const act = LOUDNESS.get(term.key);
  if (!act) return null;
  if (act.kind === 'swell') return { ...act, size: sizeBy(act.size, modifiers) };
  // "immer leiser": softer and softer.
  if (act.kind === 'step' && (modifiers.has('always') || modifiers.has('gradually')))
    return { kind: 'swell', way: act.way, size: sizeBy('plain', modifiers) };
  if (act.kind === 'level' && modifiers.has('much')) return { ...act, sign: FURTHER[act.sign] ?? act.sign };
  if (act.kind === 'level' && modifiers.has('little')) return { ...act, sign: NEARER[act.sign] ?? act.sign };
  return act;
}

/** Words that name who plays stand with a capital: "Piano" is no dynamic. */
const namesAnInstrument = (text: string, term: Term): boolean => term.key === 'piano' && /\bPiano\b/.test(text);

/**
 * Reads an expression ("dim. e rall.", "subito piano", "immer leiser") for what it does. A level is taken only from words
 * that are all known, so that a sentence about the piano is no dynamic.
 * @param classical in Mozart's time calando acts on loudness only
 */
export function readWords(text: string, classical = false): WordsRead {
  const { terms, unknown } = lookUp(text);
  const read: WordsRead = { time: null, loudness: null, lastTime: LAST_TIME.test(text), gradual: false };
  for (const phrase of phrasesOf(terms)) readPhrase(phrase, text, classical, unknown.length > 0, read);
  return read;
}

function readPhrase({ terms }: Phrase, text: string, classical: boolean, doubtful: boolean, read: WordsRead): void {
  const modifiers = new Set(terms.flatMap((t) => t.modifies ?? []));
  if (modifiers.has('not')) return;
  if (modifiers.has('gradually')) read.gradual = true;
  for (const term of terms) {
    read.time ??= timeActOf(term, modifiers, classical);
    const loudness = loudnessActOf(term, modifiers);
    if (!loudness || namesAnInstrument(text, term)) continue;
    if (loudness.kind === 'swell' || !doubtful) read.loudness ??= loudness;
  }
}

/** What words do to the tempo; null when nothing. */
export const timeActIn = (text: string, classical = false): TimeAct | null => readWords(text, classical).time;

/** Words that slow, whether bit by bit, at once or into another tempo. */
export const slows = (act: TimeAct | null): boolean =>
  act?.kind === 'slow' || act?.kind === 'at once' || (act?.kind === 'new' && act.way < 0);
/** Words that hurry. */
export const hurries = (act: TimeAct | null): boolean => act?.kind === 'fast' || (act?.kind === 'new' && act.way > 0);
