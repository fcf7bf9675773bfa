import { MODIFIER_ACTS, type ModifierAct } from './acts.ts';
import { ITALIAN } from './italian.ts';
import { ABBREVIATIONS, ENGLISH, FRENCH, GERMAN, NEED_THEIR_POINT } from './other.ts';
import { EFFECT_NAMES, type TermRow } from './term.ts';

export interface Term {
  /** Key of the term: lower case, without accents. */
  key: string;
  term: string;
  language: 'Italian' | 'French' | 'German' | 'English';
  translation: string;
  effects: string[];
  /** What it does to the term that it stands by. */
  modifies: ModifierAct | null;
}

/** Words in lower case and without accents, so that "Più" and "piu" are one; points after abbreviations that need them stay. */
export const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 'ss')
    .replace(/[’'`]/g, '’')
    .replace(/\btempo (1|imo|i°|1°)(?![\p{L}\d])/gu, 'tempo primo')
    .replace(/[^\p{L}’]+/gu, ' ')
    .trim();

const MODIFIERS = new Map(MODIFIER_ACTS.map(([term, act]) => [plain(term), act]));
const TERMS = new Map<string, Term>();
const load = (rows: TermRow[], language: Term['language']) => {
  for (const [term, translation, effects] of rows) {
    const key = plain(term);
    if (!TERMS.has(key))
      TERMS.set(key, {
        key,
        term,
        language,
        translation,
        effects: [...effects].map((e) => EFFECT_NAMES[e]),
        modifies: MODIFIERS.get(key) ?? null
      });
  }
};
load(ITALIAN, 'Italian');
load(FRENCH, 'French');
load(GERMAN, 'German');
load(ENGLISH, 'English');

export const TERM_COUNT = TERMS.size;
export const allTerms = (): Iterable<Term> => TERMS.values();

const LONGEST = Math.max(...[...TERMS.keys()].map((k) => k.split(' ').length));
const ABBREVIATED = new Map(Object.entries(ABBREVIATIONS).map(([k, v]) => [plain(k), plain(v)]));
/** Small words between terms: they say nothing by themselves. */
const JOINING = /^(e|ed|et|und|and|con|the|il|la|le|un|una|di|de|a|of|al|i|in|im|ii)$/;

/** An abbreviation that is a word of its own, too, counts only with its point: "string." but not "string IV". */
function abbreviated(key: string, expression: string): Term | undefined {
  const full = ABBREVIATED.get(key);
  if (full === undefined) return undefined;
  if (NEED_THEIR_POINT.includes(key) && !new RegExp(`(?<!\\p{L})${key}\\.`, 'iu').test(expression)) return undefined;
  return TERMS.get(full);
}

/**
 * The terms in a printed expression ("poco rit.", "Allegro ma non troppo"), longest first, and the words
 * that are not known.
 */
export function lookUp(expression: string): { terms: Term[]; unknown: string[] } {
  const words = plain(expression).split(' ').filter(Boolean);
  const terms: Term[] = [];
  const unknown: string[] = [];
  for (let k = 0; k < words.length;) {
    let taken = 0;
    for (let n = Math.min(LONGEST, words.length - k); n > 0 && !taken; n--) {
      const key = words.slice(k, k + n).join(' ');
      const term = TERMS.get(key) ?? abbreviated(key, expression);
      if (term) {
        terms.push(term);
        taken = n;
      }
    }
    if (!taken && !JOINING.test(words[k])) unknown.push(words[k]);
    k += taken || 1;
  }
  return { terms, unknown };
}

const firstOf = (translation: string): string => translation.split(/[,;(]/)[0].trim();

/** A run of terms that are read as one: modifiers with the term that they stand by. */
export interface Phrase {
  terms: Term[];
  /** "at once soft", "very lively", "slowing gradually, a little". */
  translation: string;
}

/** Terms with their modifiers joined: a modifier belongs to the term after it, else to the one before ("Allegro assai"). */
export function phrasesOf(terms: readonly Term[]): Phrase[] {
  const phrases: Phrase[] = [];
  let waiting: Term[] = [];
  const isModifier = (t: Term): boolean => t.effects.length === 1 && t.effects[0] === 'modifier';
  for (const term of terms) {
    if (isModifier(term)) waiting.push(term);
    else {
      phrases.push(joined(waiting, term));
      waiting = [];
    }
  }
  const last = phrases.at(-1);
  if (waiting.length && last)
    phrases[phrases.length - 1] = { terms: [...last.terms, ...waiting], translation: after(last.translation, waiting) };
  else if (waiting.length) phrases.push({ terms: waiting, translation: waiting.map((t) => t.translation).join(' ') });
  return phrases;
}

/** "very, much": the last sense stands after what it modifies, the first before it. */
const lastOf = (translation: string): string => translation.split(/[,;(]/).at(-1)!.trim();

const after = (translation: string, modifiers: readonly Term[]): string =>
  `${translation}, ${modifiers.map((m) => lastOf(m.translation)).join(' ')}`;

/** One word that compares: softer, faster. */
const COMPARES = /^[a-z]+er$/;

function joined(modifiers: readonly Term[], term: Term): Phrase {
  const terms = [...modifiers, term];
  if (!modifiers.length) return { terms, translation: term.translation };
  if (modifiers.some((m) => m.modifies === 'always') && COMPARES.test(term.translation))
    return { terms, translation: `${term.translation} and ${term.translation}` };
  // "a little slowing" is no English; a change takes its size after it.
  const changes = /ing\b|\bgradually\b/.test(term.translation) && modifiers.every((m) => m.modifies === 'little' || m.modifies === 'much');
  return {
    terms,
    translation: changes
      ? after(term.translation, modifiers)
      : `${modifiers.map((m) => firstOf(m.translation)).join(' ')} ${term.translation}`
  };
}
