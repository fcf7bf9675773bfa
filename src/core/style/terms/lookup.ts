import { ITALIAN } from './italian.ts';
import { ABBREVIATIONS, ENGLISH, FRENCH, GERMAN } from './other.ts';
import { EFFECT_NAMES, type TermRow } from './term.ts';

export interface Term {
  term: string;
  language: 'Italian' | 'French' | 'German' | 'English';
  translation: string;
  effects: string[];
}

const plain = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 'ss')
    .replace(/[’'`]/g, '’')
    .replace(/[^\p{L}’]+/gu, ' ')
    .trim();

const TERMS = new Map<string, Term>();
const load = (rows: TermRow[], language: Term['language']) => {
  for (const [term, translation, effects] of rows) {
    const key = plain(term);
    if (!TERMS.has(key)) TERMS.set(key, { term, language, translation, effects: [...effects].map((e) => EFFECT_NAMES[e]) });
  }
};
load(ITALIAN, 'Italian');
load(FRENCH, 'French');
load(GERMAN, 'German');
load(ENGLISH, 'English');

export const TERM_COUNT = TERMS.size;

const LONGEST = Math.max(...[...TERMS.keys()].map((k) => k.split(' ').length));
const ABBREVIATED = new Map(Object.entries(ABBREVIATIONS).map(([k, v]) => [plain(k), plain(v)]));

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
      const term = TERMS.get(key) ?? TERMS.get(ABBREVIATED.get(key) ?? '');
      if (term) {
        terms.push(term);
        taken = n;
      }
    }
    if (!taken && !/^(e|ed|et|und|and|con|the|il|la|le|un|una|di|de|a|of|ed|al|i|in|im|ii)$/.test(words[k])) unknown.push(words[k]);
    k += taken || 1;
  }
  return { terms, unknown };
}
