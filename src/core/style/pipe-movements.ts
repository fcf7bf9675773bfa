/**
 * Movements of the Highland pipes: grace notes before a melody note. Letters from low to high: G A B c d e f g a; N is the
 * melody note itself. Handbook 19.1 [M, check with players]. The names are those of the command line.
 */
export const PIPE_NOTES = 'GABcdefga';

export type MovementName =
  | 'g-grace'
  | 'd-grace'
  | 'e-grace'
  | 'doubling'
  | 'half-doubling'
  | 'thumb-doubling'
  | 'throw'
  | 'heavy-throw'
  | 'grip'
  | 'taorluath'
  | 'birl'
  | 'rodin'
  | 'strike'
  | 'cadence';

export interface Movement {
  name: MovementName;
  graces: string;
  /** Melody notes to which it leads; all where none are named. */
  to?: string;
  /** Melody notes from which it comes; all where none are named. */
  from?: string;
  notFrom?: string;
  says: string;
}

const doublings = (name: MovementName, before: string, notes: Record<string, string>, says: string): Movement[] =>
  Object.entries(notes).map(([to, after]) => ({ name, graces: before + to + after, to, says }));

/** What follows the melody note's own grace in a doubling. */
const LOW = { A: 'd', B: 'd', c: 'd', d: 'e', e: 'f', f: 'g' };

export const MOVEMENTS: readonly Movement[] = [
  { name: 'g-grace', graces: 'g', says: 'a single high G' },
  { name: 'd-grace', graces: 'd', says: 'a single D' },
  { name: 'e-grace', graces: 'e', says: 'a single E' },
  ...doublings('doubling', 'g', LOW, 'high G, the note, and the note above it'),
  { name: 'doubling', graces: 'gf', to: 'g', says: 'high G and F' },
  { name: 'doubling', graces: 'ag', to: 'a', says: 'high A and high G' },
  ...doublings('half-doubling', '', LOW, 'a doubling without its high G'),
  ...doublings('thumb-doubling', 'a', LOW, 'a doubling that begins with high A'),
  { name: 'throw', graces: 'Gdc', to: 'd', says: 'low G, D, C on D' },
  { name: 'heavy-throw', graces: 'GdGc', to: 'd', says: 'low G, D, low G, C on D' },
  { name: 'grip', graces: 'GdG', notFrom: 'd', says: 'low G, D, low G' },
  { name: 'grip', graces: 'GBG', from: 'd', says: 'low G, B, low G, from D' },
  { name: 'taorluath', graces: 'GdGe', notFrom: 'd', says: 'a grip and an E' },
  { name: 'taorluath', graces: 'GBGe', from: 'd', says: 'a grip and an E, from D' },
  { name: 'birl', graces: 'GAG', to: 'A', says: 'low A struck twice with low G' },
  { name: 'birl', graces: 'gAGAG', to: 'A', says: 'high G, then low A struck twice' },
  { name: 'birl', graces: 'aAGAG', to: 'A', says: 'high A, then low A struck twice' },
  { name: 'rodin', graces: 'GBG', to: 'A', notFrom: 'd', says: 'low G, B, low G on low A' }
];

/** Seconds that each grace note takes, open and tight. Handbook 19.2 [M]. */
export const GRACE_SECONDS = { open: 0.05, tight: 0.03 } as const;
/** Of the note that gives its time, what the graces may take. [M] */
export const GRACE_SHARE = 0.6;
