import type { SourceKey } from './bibliography.ts';

/** Kinds of practice material, as teachers ask for them. Handbook 20; common practice of teachers where nothing else is said. */
export const DRILLS = {
  'strong-beats': {
    name: 'Strong beats only',
    how: 'Play the notes on the strong beats, held, with the feeling of the whole. Then go back to all notes.'
  },
  'some-beats': { name: 'All beats', how: 'Play the notes on the beats, held. What lies between them is added last.' },
  anchors: {
    name: 'Anchor notes',
    how: 'Play the notes that carry the line in their own length and time; the others are silent but thought.'
  },
  'skeleton-1': {
    name: 'The line without its ornaments',
    how: 'Play what is left when ornament notes are gone, each note held to the next.'
  },
  'skeleton-2': { name: 'The bare frame', how: 'Play the frame alone, each note held to the next, and hear where it goes.' },
  'sequence-units': {
    name: 'One unit at a time',
    how: 'Play one unit, stop, get ready for the next, play it. Then shorten the stops, then join.'
  },
  'rests-filled': { name: 'Rests filled', how: 'Play the short notes as one long line, legato. Then as written: the line stays.' },
  'ties-undone': { name: 'Ties undone', how: 'Strike each tied note anew, exactly in time. Then tie again and feel where it was.' },
  'even-values': { name: 'All values even', how: 'Play all notes in one value, evenly. Then the rhythm as written.' },
  'slurs-grow': { name: 'Slurs grow', how: 'Each note by itself, then three in one, then six. The fingers stay the same.' },
  'long-short': {
    name: 'Long and short',
    how: 'Lengthen the first of each pair and play the second late and quick. Rest in the long note.'
  },
  'short-long': { name: 'Short and long', how: 'The first of each pair quick, the second long. Rest in the long note.' },
  groups: { name: 'In groups with stops', how: 'Four notes at full speed, stop, think the next four, play them.' },
  'accents-moved': { name: 'Accents moved', how: 'Lean on the first note of each group; then on the second, the third, the fourth.' },
  'chords-repeated': {
    name: 'Chords again and again',
    how: 'Each chord four times: prepare, place, sound, let go. Hands and arms loose between.'
  },
  'double-stops-slow': { name: 'Double stops slowly', how: 'Each double stop in twice its time, legato; listen for the lower note first.' },
  'hands-alone': { name: 'Hands alone', how: 'One hand, then the other, with the fingers and the articulation that both will have.' },
  'bow-alone': {
    name: 'The bow on open strings',
    how: 'The rhythm, the bows and the string crossings on open strings. Then with the left hand.'
  },
  'left-hand-alone': { name: 'The left hand alone', how: 'Without bow: the fingers fall in rhythm and are heard on the string.' },
  'ornaments-out': { name: 'Without ornaments', how: 'The tune alone, in time. When it sings, the ornaments come back one by one.' },
  'ornaments-exact': {
    name: 'Ornaments as exact rhythm',
    how: 'Each ornament slowly as written out, then with fewer notes, then with as many as fit.'
  },
  interval: { name: 'One interval', how: 'The two notes slowly, again and again; then inside three notes, five, the bar.' },
  'from-the-front': { name: 'Added from the front', how: 'The first beat, then one more each time, up to the whole.' },
  'from-the-end': {
    name: 'Added from the end',
    how: 'The last beat, then one more before it each time, up to the whole: one always goes toward what is known.'
  },
  'rhythm-alone': { name: 'Rhythm on one note', how: 'Speak the count aloud and play the rhythm on one pitch; then count silently.' },
  'displaced-entry': {
    name: 'As it was, and as it returns',
    how: 'The theme as it was, then as it returns elsewhere in the bar, against the click.'
  },
  'long-notes': { name: 'Long notes of the peak', how: 'From nothing to full and back, without a change of pitch or colour.' },
  'scales-of-the-piece': {
    name: 'Scales of this piece',
    how: 'The scale of each key of the piece, in its range; then in thirds, then the chord.'
  },
  'altered-notes': { name: 'Altered notes only', how: 'Only the notes that differ from the signature sound; name them before you play.' },
  'movement-alone': { name: 'One movement', how: 'The movement alone, slowly, each grace note clear; then before and after its own note.' }
} as const satisfies Record<string, { name: string; how: string; sources?: readonly SourceKey[] }>;

/** What a teacher may set in a drill, and between which ends; `usual` is what is offered. */
export const DRILL_CONTROLS = {
  unit: { name: 'added at once', says: 'beats that are added at once', least: 1, most: 4, usual: 1 },
  repeats: { name: 'times', says: 'how often each is played', least: 1, most: 8, usual: 1 },
  group: { name: 'notes in a group', says: 'notes in a group', least: 2, most: 8, usual: 4 },
  slur: { name: 'notes in a slur', says: 'notes in the shorter slur; the longer one has twice as many', least: 2, most: 6, usual: 3 }
} as const;
export type DrillControl = keyof typeof DRILL_CONTROLS;

/** Which kinds have which controls, with what is usual there if it is something else. */
export const CONTROLS_OF: Partial<Record<DrillKind, Partial<Record<DrillControl, number | true>>>> = {
  'sequence-units': { repeats: true },
  'slurs-grow': { slur: true },
  groups: { group: true },
  'accents-moved': { group: true },
  'chords-repeated': { repeats: 4 },
  interval: { repeats: 3 },
  'from-the-front': { unit: true, repeats: true },
  'from-the-end': { unit: true, repeats: true },
  'rhythm-alone': { repeats: true },
  'movement-alone': { repeats: 2 },
  'long-notes': { repeats: true },
  'even-values': { repeats: true },
  'long-short': { repeats: true },
  'short-long': { repeats: true }
};

/** The same the other way round. */
export const TURNED: Partial<Record<DrillKind, DrillKind>> = {
  'from-the-front': 'from-the-end',
  'from-the-end': 'from-the-front',
  'long-short': 'short-long',
  'short-long': 'long-short'
};

export type DrillKind = keyof typeof DRILLS;
export const DRILL_KINDS = Object.keys(DRILLS) as DrillKind[];

/** When a drill has a reason, and how many are offered. Set by hand [M], adjustable. */
export const DRILL_WEIGHTS = {
  /** Notes a second from which a run is quick. */
  quick: 4,
  /** Notes of one value in a row that make a run. */
  run: 8,
  /** Bars of a passage that is cut out. */
  mostBars: 8,
  /** Chains grow in at most so many steps. */
  mostSteps: 8,
  /** Bars of a theme whose return elsewhere in the bar is worth a drill. */
  themeBars: 2,
  /** A leap that is worth a drill, in semitones. */
  leap: 10,
  /** Seconds from which a note is long. */
  longSeconds: 1.2,
  /** Of the notes of a passage, what may stay at most: on the beats, as carrying notes, in the frame. */
  onBeats: 0.6,
  anchors: 0.67,
  framed: 0.7,
  /** Notes off the beats from which a frame says something. */
  between: 4,
  /** Short rests, different values, altered notes, double stops, and notes of a passage, from which it is worth it. */
  restsApart: 3,
  values: 3,
  altered: 3,
  doubleStops: 2,
  notes: 6,
  /** Notes of a run that is slurred in threes and sixes. */
  slurredRun: 12,
  /** How hard the rhythm of a bar is before it is practised alone. */
  rhythm: 0.3,
  /** Bars of a passage that is put together note by note. */
  chainedBars: 4,
  /** Chords, ornaments, long notes and keys of one drill; notes from which a piece has keys. */
  chords: 8,
  ornaments: 6,
  longNotes: 3,
  keys: 4,
  keyNotes: 16,
  /** Drills that are offered at most, and of one kind. */
  most: 24,
  ofAKind: 2
} as const;

/** Of the goal, what a drill begins with, easy and hard. [M] */
export const STARTS = { easy: 0.75, hard: 0.5 } as const;

/** The parts of difficulty: what counts as much as there can be. Handbook 21.1 [M]. */
export const DIFFICULTY = {
  /** Notes a second at the ceiling of technique. */
  speed: 12,
  /** Mean leap in semitones beyond a third. */
  leaps: 12,
  third: 4,
  octave: 12,
  /** Price a note of the cheapest fingering, bow or stick path. */
  hand: 1.2,
  fewNotes: 6,
  /** What a price of keyboard fingering counts at most: the whole hand goes elsewhere, which the model of stretches overrates. */
  keysShift: 8,
  /** Crossings over a string a bar. */
  crossings: 4,
  /** Altered notes among all. */
  accidentals: 0.5,
  /** Different values and ties off the beat a bar. */
  rhythm: 6,
  /** Semitones of a span. */
  span: 16,
  /** How the hardest part and the mean of the three hardest count. */
  hardest: 0.65,
  next: 0.35,
  /** A hot spot stands so much above the mean, in standard deviations, and is hard at least so much. */
  above: 0.6,
  least: 0.3,
  told: 2,
  /** What of a second part is worth telling, as a mean over the bars. */
  tellable: 0.2,
  /** What a teacher's word adds or takes away. */
  judged: 0.25
} as const;
