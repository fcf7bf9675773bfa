import type { SchoolKey } from './schools.ts';

/** How an answer is told in a sentence: words before its label, or a clause for each option. */
export const SCHOOL_PROSE: Record<SchoolKey, string | Record<string, string>> = {
  text: { 'as-printed': 'the printed page comes first', free: 'the page is taken as a ground' },
  tempo: 'the tempo is',
  rubato: {
    'beat-strict': 'time is strict inside the beat',
    stolen: 'time is stolen and given back',
    arch: 'time bends by the arch of the phrase'
  },
  repeats: 'the second time',
  'third-time': 'what comes three times is heard as',
  return: 'when the theme comes back',
  'trill-start': 'trills begin',
  appoggiatura: 'a small note is',
  touch: 'notes without a sign last',
  staccato: 'a dot means',
  'slur-pairs': { 'lift-second': 'the second of a slurred pair is lighter and shorter', even: 'slurred pairs are even' },
  'short-notes': 'sixteenths beside longer notes are',
  dotting: 'dots are',
  inegales: {
    none: 'equal notes stay equal',
    mild: 'equal notes are mildly unequal, three to two',
    full: 'equal notes are unequal, two to one'
  },
  sforzando: 'a sforzando is',
  'chord-break': 'chords of three and four strings sound',
  'chord-release': 'what goes on of a chord is',
  bowing: { 'rule-of-downbow': 'downbeats are bowed down', gesture: 'bows follow the gesture', 'as-printed': 'bows are as printed' },
  'suspect-notes': 'a note that seems wrong is',
  plan: 'the plan gives',
  joins: 'where sections join',
  'pipe-movements': 'the movements are',
  'pipe-placing': 'the movements stand',
  swing: { 'two-to-one': 'eighths swing two to one', 'by-tempo': 'eighths swing as the tempo has it', straight: 'eighths are straight' }
};

/** An answer as a clause: "trills begin on the upper note". */
export function schoolClause(key: SchoolKey, option: string, label: string): string {
  const prose = SCHOOL_PROSE[key];
  return typeof prose === 'string' ? `${prose} ${label}` : (prose[option] ?? label);
}
