import { dynamicStep } from './dynamics.ts';

/** What is known of a stretch of music when its character is asked for. */
export interface Traits {
  minor: boolean;
  /** Notes a second. */
  pace: number;
  /** Mean height over that of the whole line, in semitones. */
  height: number;
  /** Level in force, in steps; null where none is. */
  level: number | null;
  /** The beat divides into three. */
  compound: boolean;
  /** Share of the notes that are detached by a sign. */
  detached: number;
  /** Share of the moves that are steps. */
  stepwise: number;
}

/** Words of character and what they need; the first that fits is taken. Common practice, from memory. */
interface Character {
  word: string;
  mode?: 'major' | 'minor';
  pace?: 'slow' | 'middle' | 'quick';
  level?: 'soft' | 'loud';
  detached?: true;
  compound?: true;
  stepwise?: true;
}

/** Notes a second under which music is slow, and over which it is quick. */
const SLOW = 1.6;
const QUICK = 4;
/** Shares of detached notes and of steps that make a texture; semitones that are high or low. */
const DETACHED = 0.4;
const STEPWISE = 0.55;
const FAR = 2;

const CHARACTERS: readonly Character[] = [
  { word: 'scherzando', mode: 'major', pace: 'quick', detached: true },
  { word: 'leggiero', pace: 'quick', level: 'soft' },
  { word: 'agitato', mode: 'minor', pace: 'quick', level: 'loud' },
  { word: 'brillante', mode: 'major', pace: 'quick', level: 'loud' },
  { word: 'maestoso', mode: 'major', pace: 'slow', level: 'loud' },
  { word: 'grave', mode: 'minor', pace: 'slow', level: 'loud' },
  { word: 'mesto', mode: 'minor', pace: 'slow', level: 'soft' },
  { word: 'tranquillo', mode: 'major', pace: 'slow', level: 'soft' },
  { word: 'cullando', pace: 'middle', level: 'soft', compound: true },
  { word: 'grazioso', mode: 'major', pace: 'middle', detached: true },
  { word: 'cantabile', pace: 'middle', stepwise: true }
];

const LOUD = dynamicStep('mf')!;

/**
 * A word for a stretch of music, with all that speaks for it; null where nothing fits, for no word is better than one against the
 * page. Of loudness nothing is assumed where the page says nothing.
 */
export function characterOf(t: Traits): { word: string; because: string } | null {
  const pace = t.pace < SLOW ? 'slow' : t.pace > QUICK ? 'quick' : 'middle';
  const level = t.level === null ? null : t.level >= LOUD ? 'loud' : 'soft';
  const mode = t.minor ? 'minor' : 'major';
  const fits = (c: Character): boolean =>
    (!c.mode || c.mode === mode) &&
    (!c.pace || c.pace === pace) &&
    (!c.level || c.level === level) &&
    (!c.detached || t.detached >= DETACHED) &&
    (!c.compound || t.compound) &&
    (!c.stepwise || t.stepwise >= STEPWISE);
  const found = CHARACTERS.find(fits);
  if (!found) return null;
  const evidence = [
    { slow: 'few notes a second', middle: 'a middle pace', quick: 'many notes a second' }[pace],
    ...(found.level ? [level === 'loud' ? 'a loud level in force' : 'a soft level in force'] : []),
    ...(found.detached ? ['many detached notes'] : []),
    ...(found.compound ? ['a beat in three'] : []),
    ...(found.stepwise ? ['mostly steps'] : []),
    ...(Math.abs(t.height) > FAR ? [t.height > 0 ? 'high' : 'low'] : [])
  ];
  return { word: found.word, because: evidence.join(', ') };
}
