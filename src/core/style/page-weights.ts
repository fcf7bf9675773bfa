/** How pages are filled; common practice of engravers, the weights set by hand and adjustable. */
export const TURNS = {
  /** Share of a page from which what is left over is spread, and how many usual gaps a gap may become. */
  spreadFrom: 0.6,
  widest: 4,
  /** Share of a page that may stay empty for a better turn. */
  emptiest: 1 / 3,
  /** Cost of an empty page, of two last pages that differ by a whole page, and worth of a good turn. */
  empty: 1,
  uneven: 0.6,
  /** Share of a page that is full enough, and the cost of one that is less. */
  fullEnough: 2 / 3,
  bare: 10,
  turn: 0.5,
  /** Seconds of rest in which a page is turned without haste. */
  seconds: 2
} as const;

/** Sizes and distances of text on a page in points; common practice of books for reading. */
export const TYPE = {
  text: 10,
  small: 9,
  leading: 1.32,
  title: 20,
  composer: 12,
  part: 15,
  heading: 11.5,
  subheading: 10,
  paragraphGap: 3.5,
  indent: 14,
  margin: 45,
  foot: 18,
  betweenSystems: 8,
  /** Between the music and the text that begins under it. */
  afterMusic: 22,
  /** Share of a page that text may have filled for music to begin under it. */
  startsBelow: 0.62,
  /** Share of a page up to which a table is kept on one. */
  keptWhole: 0.3
} as const;

/** How systems are engraved; set by hand against the pictures of the demo pieces and sample scores, adjustable. */
export const ENGRAVING = {
  /** Size of a small staff against the usual one; common practice. */
  smallStaff: 0.68,
  /** From one staff to the next below it in a system, in heights of a staff; as the engraver spaces them with a little between. */
  stavesApart: 2.7,
  /** Share of a line's notes that it holds when their beats are counted under it. */
  counted: 0.85,
  /** Letters from which words are set in two lines: longer ones reach into what the next bar has to say. */
  longWords: 22,
  /** Notes of a written-out ornament from which on their number is said; notes of one value under one beam at most, to be read at a glance. */
  numbered: 4,
  beamed: { triplets: 6, others: 8 },
  /** Print of a count line, and of held beats in it, which have no room of their own between the notes. */
  count: '80%',
  heldBeat: '65%'
} as const;
