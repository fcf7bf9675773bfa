import type { SourceKey } from './bibliography.ts';

/** How practice is laid out in time, each number with its source; adjustable. Handbook 21. */
export const PRACTICE = {
  /** Minutes of one visit to a task: a passage, a drill, listening, the teacher's own; and the shortest that is a visit. [M] */
  passage: 6,
  drill: 4,
  listen: 3,
  own: 5,
  least: 2,
  /** A run-through takes the length of the piece and so much besides; a slow one so many times it. [M] */
  aroundRun: 1,
  slowRun: 1.5,
  /** Days before a performance on which nothing new is begun: slow run-throughs instead. Common practice. */
  nothingNew: 2,
  /** Share of the days in which all new things are begun, so that the rest is for coming back. [M] */
  beginsWithin: 0.6,
  /** New tasks of one day at most, as long as all can begin in time. [M] */
  mostNew: 4,
  /** Share of the days after which run-throughs come, and every how many days. [M] */
  runsFrom: 0.5,
  runsEvery: 3,
  /** Minutes at one passage before another comes: passages alternate. Carter & Grahn 2016 let three minutes alternate (from memory). */
  turn: 3,
  /** A passage comes back when so much of it is still known, as the spacing scheduler reckons. Its own usual value. */
  retention: 0.9,
  /** Tasks on the same bars in one day, at most; days between two visits of what is not due. [M] */
  sameBars: 2,
  apart: 2,
  /** Rating of a visit: from this share of misses among tries it was not known. [M] */
  missed: 0.5,
  /** Hard places that a new plan begins with. [M] */
  firstSpots: 8,
  /** Seconds at a task below which nothing was done; minutes of a tune of which no length is known. [M] */
  shortest: 5,
  tune: 1,
  /** From which share of a bar at the end of the range, and which load, it is loud and high work. [M] */
  high: 0.5,
  load: 0.5,
  /** Bars that one check names: more are "throughout"; words of character that it repeats. [M] */
  checkBars: 4,
  checkWords: 2
} as const;

/** Steps of the ladder. Handbook 21.3, common practice. */
export const LADDER = {
  /** Clean runs in a row for one step up. */
  clean: 3,
  /** Failures for going back, and how many steps. */
  failures: 2,
  back: 2,
  /** Steps under yesterday's best at which a day begins. */
  under: 3
} as const;

/** Care in a session; handbook 11 and 21.6. Usual cautions, not medical advice. */
export const CARE = {
  /** Minutes after which a break is proposed, and how long it is. */
  breakAfter: 25,
  break: 5,
  /** Minutes of loud and high playing in one portion. [M] */
  loudHigh: 10,
  pain: 'Stop here. Pain, numbness or lasting fatigue is a reason to rest, to tell your teacher, and to see a clinician who treats musicians.',
  rest: 'Put the instrument down for five minutes: stand, drink, look far away.',
  portions: 'Loud and high: in short portions, with rest between.'
} as const;

/** What a plan is laid out by, with the studies that say so; shown beside the plan. */
export const PRACTICE_REASONS: readonly { says: string; source: SourceKey }[] = [
  { says: 'Practice is spread over days rather than massed in one.', source: 'simmons' },
  { says: 'Passages alternate, a few minutes each, instead of one until it is done.', source: 'carterGrahn' },
  { says: 'Errors are stopped at once and located; the hard place comes again slowly, in its context.', source: 'duke' },
  { says: 'What is hard comes first in a day, run-throughs last; nothing new in the last two days before a performance.', source: 'common' }
];

/** What a section is looked over for, in this order. Handbook 21.4. */
export const CHECKS = {
  intonation: 'Intonation',
  rhythm: 'Rhythm',
  articulation: 'Articulation',
  dynamics: 'Dynamics',
  tone: 'Tone',
  hand: 'Left hand',
  bow: 'Bow',
  breath: 'Breath',
  ornaments: 'Ornaments',
  character: 'Character'
} as const;
export type CheckKind = keyof typeof CHECKS;

/** What listeners are asked to hear at an audition, in the order of weight. Handbook 21.5, common practice. */
export const LISTENING = [
  { key: 'sound', asks: 'Sound: is it the sound that you want from the first note?' },
  { key: 'time', asks: 'Time: is the tempo steady, and the one that was asked for?' },
  { key: 'pitch', asks: 'Pitch: in tune with itself and with what would lie under it?' },
  { key: 'rhythm', asks: 'Rhythm: exact, the rests too?' },
  { key: 'details', asks: 'Details: is every mark of the page heard?' },
  { key: 'style', asks: 'Style: does it sound of its time and kind?' },
  { key: 'role', asks: 'Role: does one hear where it leads and where it accompanies?' },
  { key: 'calm', asks: 'Calm: after a slip, did it go on as if nothing had been?' }
] as const;
export type ListeningKey = (typeof LISTENING)[number]['key'];
