/** Sources that rules and tables name, by key. "From memory" marks pages that were not checked against a copy. */
export interface Source {
  short: string;
  full: string;
  fromMemory?: true;
}

export const SOURCES = {
  quantz: {
    short: 'Quantz 1752',
    full: 'J. J. Quantz, Versuch einer Anweisung die Flöte traversiere zu spielen, Berlin 1752',
    fromMemory: true
  },
  cpebach: {
    short: 'C. P. E. Bach 1753',
    full: 'C. P. E. Bach, Versuch über die wahre Art das Clavier zu spielen I, Berlin 1753',
    fromMemory: true
  },
  lmozart: { short: 'L. Mozart 1756', full: 'L. Mozart, Versuch einer gründlichen Violinschule, Augsburg 1756', fromMemory: true },
  turk: { short: 'Türk 1789', full: 'D. G. Türk, Klavierschule, Leipzig and Halle 1789', fromMemory: true },
  czerny: {
    short: 'Czerny op. 500',
    full: 'C. Czerny, Complete Theoretical and Practical Piano Forte School op. 500, III, 1839',
    fromMemory: true
  },
  muffat: { short: 'Muffat 1698', full: 'G. Muffat, Florilegium secundum, Passau 1698', fromMemory: true },
  caplin: { short: 'Caplin 1998', full: 'W. E. Caplin, Classical Form, New York 1998' },
  lerdahl: {
    short: 'Lerdahl & Jackendoff 1983',
    full: 'F. Lerdahl and R. Jackendoff, A Generative Theory of Tonal Music, Cambridge MA 1983'
  },
  todd: { short: 'Todd 1992', full: 'N. P. McA. Todd, "The dynamics of dynamics", JASA 91, 1992' },
  friberg: {
    short: 'Friberg et al. 2006',
    full: 'A. Friberg, R. Bresin and J. Sundberg, "Overview of the KTH rule system", Advances in Cognitive Psychology 2, 2006'
  },
  hummel: {
    short: 'Hummel 1828',
    full: 'J. N. Hummel, Ausführliche theoretisch-practische Anweisung zum Piano-Forte-Spiel, Vienna 1828',
    fromMemory: true
  },
  spohr: { short: 'Spohr 1832', full: 'L. Spohr, Violinschule, Vienna 1832', fromMemory: true },
  clementi: {
    short: 'Clementi 1801',
    full: 'M. Clementi, Introduction to the Art of Playing on the Piano Forte, London 1801',
    fromMemory: true
  },
  patterson: { short: 'Patterson 1974', full: 'B. Patterson, "Musical dynamics", Scientific American 231, 1974', fromMemory: true },
  fribergSundstrom: {
    short: 'Friberg & Sundström 2002',
    full: 'A. Friberg and A. Sundström, "Swing ratios and ensemble timing in jazz performance", Music Perception 19(3), 2002'
  },
  fribergSundberg: {
    short: 'Friberg & Sundberg 1999',
    full: 'A. Friberg and J. Sundberg, "Does music performance allude to locomotion?", JASA 105(3), 1999'
  },
  carterGrahn: {
    short: 'Carter & Grahn 2016',
    full: 'C. E. Carter and J. A. Grahn, "Optimizing music learning: exploring how blocked and interleaved practice schedules affect advanced performance", Frontiers in Psychology 7:1251, 2016'
  },
  simmons: {
    short: 'Simmons 2012',
    full: 'A. L. Simmons, "Distributed practice and procedural memory consolidation in musicians’ skill learning", Journal of Research in Music Education 59(4), 2012'
  },
  duke: {
    short: 'Duke et al. 2009',
    full: 'R. A. Duke, A. L. Simmons and C. D. Cash, "It’s not how much; it’s how: characteristics of practice behavior and retention of performance skills", Journal of Research in Music Education 56(4), 2009'
  },
  common: { short: 'common practice', full: 'Common practice of teachers and players; no single source' }
} as const satisfies Record<string, Source>;

export type SourceKey = keyof typeof SOURCES;

/** Short names of sources; a key that is not known (any more) is left out. */
export const shortNames = (keys: readonly string[] | undefined): string[] =>
  (keys ?? []).flatMap((k) => (Object.hasOwn(SOURCES, k) ? [SOURCES[k as SourceKey].short] : []));
