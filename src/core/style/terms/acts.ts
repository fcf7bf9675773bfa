/**
 * What the terms of the dictionary do to time and loudness, one entry a term. Every term that the dictionary marks as
 * acting on tempo or loudness stands here or among those that only describe (DESCRIBES): a word that is translated is also obeyed.
 * Common practice; German, French and English ones beside the Italian.
 */

export type Size = 'little' | 'plain' | 'much';

/** What a word does to the tempo. */
export type TimeAct =
  | { kind: 'slow' | 'fast'; size: Size }
  /** Another tempo that holds from here on: slower (−1) or faster (1). */
  | { kind: 'new'; way: 1 | -1; size: Size }
  | { kind: 'at once' | 'restore' | 'wait' | 'same' | 'free' };

/** What a word does to the loudness. */
export type LoudnessAct =
  /** Grows (1) or fades (−1) until the next mark or the end of its phrase; `toNothing` as far as can be heard. */
  | { kind: 'swell'; way: 1 | -1; size: Size; toNothing?: true }
  /** From here on a step louder or softer. */
  | { kind: 'step'; way: 1 | -1 }
  /** A level in force from here on; `most` and `least` only bring what is louder or softer than it to it. */
  | { kind: 'level'; sign: string; bound?: 'most' | 'least' };

const SLOWING: TimeAct = { kind: 'slow', size: 'plain' };
const YIELDING: TimeAct = { kind: 'slow', size: 'little' };
const HURRYING: TimeAct = { kind: 'fast', size: 'plain' };
const SLOWER: TimeAct = { kind: 'new', way: -1, size: 'plain' };
const FASTER: TimeAct = { kind: 'new', way: 1, size: 'plain' };
const HELD: TimeAct = { kind: 'at once' };
const RESTORE: TimeAct = { kind: 'restore' };
const SAME: TimeAct = { kind: 'same' };
const FREE: TimeAct = { kind: 'free' };

const each = <A>(act: A, ...terms: string[]): [string, A][] => terms.map((term) => [term, act]);

export const TIME_ACTS: readonly (readonly [string, TimeAct])[] = [
  ...each(SLOWING, 'rallentando', 'ritardando', 'allargando', 'slargando', 'slentando', 'lentando', 'ralenti', 'ralentir', 'ralentissez'),
  ...each(SLOWING, 'en ralentissant', 'élargir', 'élargissez', 'zögernd', 'zurückhalten', 'zurückhaltend', 'nachlassend', 'slowing'),
  ...each(SLOWING, 'slowing down', 'slow down'),
  ...each(YIELDING, 'morendo', 'smorzando', 'perdendosi', 'mancando', 'calando', 'ersterbend', 'calmando', 'cédez', 'settle', 'dying away'),
  ...each(HURRYING, 'accelerando', 'affrettando', 'stringendo', 'animando', 'incalzando', 'precipitando', 'animez', 'en animant'),
  ...each(HURRYING, 'en pressant', 'en serrant', 'pressez', 'serrez', 'beschleunigen', 'drängend', 'eilen', 'eilend', 'steigernd'),
  ...each(HURRYING, 'schneller werden', 'schneller werdend', 'getting faster', 'hurrying', 'stretto', 'ravvivando'),
  ...each(SLOWER, 'meno mosso', 'meno vivo', 'meno allegro', 'più lento', 'più largo', 'più tranquillo', 'plus lent', 'moins vite'),
  ...each(SLOWER, 'langsamer', 'ruhiger', 'slower', 'doppio più lento'),
  ...each(FASTER, 'più mosso', 'più vivo', 'più allegro', 'più animato', 'più presto', 'plus vite', 'plus animé', 'plus vif', 'bewegter'),
  ...each(FASTER, 'schneller', 'rascher', 'faster', 'doppio movimento'),
  ...each(HELD, 'ritenuto', 'retenu', 'retenez', 'en retenant', 'held back'),
  ...each(RESTORE, 'a tempo', 'in tempo', 'tempo primo', 'tempo i', 'au mouvement', 'im tempo', 'in time', 'a battuta'),
  ...each(RESTORE, 'früheres Zeitmaß', 'strictly in time'),
  ...each(SAME, 'l’istesso tempo', 'même mouvement'),
  ...each(
    FREE,
    'ad libitum',
    'a piacere',
    'senza misura',
    'libero',
    'liberamente',
    'librement',
    'frei',
    'freely',
    'recitativo',
    'a capriccio'
  ),
  ...each<TimeAct>({ kind: 'wait' }, 'wait')
];

/** In Mozart's time these act on loudness only. Common practice; handbook 7.5. */
export const SOFTER_ONLY_IN_CLASSICAL: readonly string[] = ['calando'];

const GROWING: LoudnessAct = { kind: 'swell', way: 1, size: 'plain' };
const FADING: LoudnessAct = { kind: 'swell', way: -1, size: 'plain' };
const DYING: LoudnessAct = { kind: 'swell', way: -1, size: 'much', toNothing: true };
const LOUDER: LoudnessAct = { kind: 'step', way: 1 };
const SOFTER: LoudnessAct = { kind: 'step', way: -1 };
const level = (sign: string, bound?: 'most' | 'least'): LoudnessAct => ({ kind: 'level', sign, ...(bound ? { bound } : {}) });

export const LOUDNESS_ACTS: readonly (readonly [string, LoudnessAct])[] = [
  ...each(GROWING, 'crescendo', 'steigernd', 'incalzando', 'anschwellend', 'augmentez', 'en augmentant', 'growing', 'getting louder'),
  ...each(
    FADING,
    'decrescendo',
    'diminuendo',
    'calando',
    'fading',
    'abnehmend',
    'diminuez',
    'en diminuant',
    'getting softer',
    'growing softer'
  ),
  ...each(DYING, 'morendo', 'perdendosi', 'smorzando', 'mancando', 'ersterbend', 'verhallend', 'verklingend', 'verlöschend', 'al niente'),
  ...each(DYING, 'dying away', 'en s’éteignant'),
  ...each(LOUDER, 'più forte', 'lauter', 'plus fort', 'louder'),
  ...each(SOFTER, 'più piano', 'leiser', 'plus doux', 'softer', 'meno forte'),
  ...each(level('ppp'), 'pianississimo'),
  ...each(level('pp'), 'pianissimo'),
  ...each(level('p'), 'piano', 'leise', 'softly'),
  ...each(level('mp'), 'mezzo piano'),
  ...each(level('mf'), 'mezzo forte'),
  ...each(level('f'), 'forte', 'fort', 'loudly'),
  ...each(level('ff'), 'fortissimo'),
  ...each(level('fff'), 'fortississimo'),
  ...each(level('p'), 'fortepiano'),
  ...each(level('ppp', 'most'), 'estinto', 'éteint'),
  ...each(level('pp', 'most'), 'mormorando', 'murmuré'),
  ...each(level('p', 'most'), 'sotto voce', 'lontano', 'lointain', 'distant'),
  ...each(level('mp', 'most'), 'mezza voce'),
  ...each(level('f', 'least'), 'con forza', 'strepitoso', 'kräftig')
];

/** Terms that the dictionary marks with tempo or loudness and that change neither by themselves: they set or colour a tempo, name a sign, or ask for a tone. */
export const DESCRIBES: readonly string[] = [
  // Tempo words: `style/tempo-words.ts` says what they mean in numbers.
  ...['adagietto', 'adagio', 'agitato', 'alla breve', 'allegretto', 'allegro', 'allegro assai', 'andante', 'andantino', 'animato'],
  ...['comodo', 'con moto', 'giusto', 'grave', 'larghetto', 'largo', 'largamente', 'lento', 'maestoso', 'misurato', 'moderato', 'mosso'],
  ...['moto', 'precipitato', 'prestissimo', 'presto', 'rapido', 'sostenuto', 'stentato', 'tempo giusto', 'tosto', 'tranquillo', 'veloce'],
  ...['vivace', 'vivacissimo', 'vivo', 'à l’aise', 'agité', 'animé', 'gai', 'gaiement', 'lent', 'lentement', 'modéré', 'mouvement'],
  ...['tranquille', 'très vif', 'vif', 'vite', 'vivement', 'bedächtig', 'behaglich', 'belebt', 'bewegt', 'breit', 'fliessend', 'fließend'],
  ...['frisch', 'gehend', 'gemächlich', 'gemessen', 'geschwind', 'getragen', 'hastig', 'langsam', 'lebhaft', 'mässig', 'mäßig', 'munter'],
  ...['rasch', 'ruhig', 'schleppend', 'schnell', 'vorwärts', 'zeitmaß', 'broadly', 'driving', 'flowing', 'lively', 'moderately', 'quickly'],
  ...['slow', 'slowly', 'steady', 'unhurried', 'tempo'],
  // Manners of playing in time.
  ...[
    'colla parte',
    'colla voce',
    'fermata',
    'lunga',
    'pausa',
    'rubato',
    'senza rigore',
    'sans rigueur',
    'even eighths',
    'straight',
    'swing'
  ],
  // Tone and single notes.
  ...['dolce', 'dolcissimo', 'forza', 'forzando', 'forzato', 'messa di voce', 'rinforzando', 'sforzando', 'sforzato', 'sonore', 'sonoro'],
  ...['doux', 'doucement', 'éclatant', 'en dehors', 'voilé', 'gedämpft', 'heimlich', 'hervortretend', 'sanft', 'stark', 'zart', 'gently']
];

/** What modifiers do to the term that they stand by. */
export type ModifierAct = 'little' | 'much' | 'gradually' | 'at once' | 'always' | 'not';

export const MODIFIER_ACTS: readonly (readonly [string, ModifierAct])[] = [
  ...each<ModifierAct>('little', 'poco', 'pochissimo', 'un poco', 'peu', 'un peu', 'etwas', 'wenig', 'ein wenig', 'slightly', 'a little'),
  ...each<ModifierAct>('much', 'molto', 'assai', 'très', 'sehr', 'beaucoup', 'viel', 'much', 'very'),
  ...each<ModifierAct>('gradually', 'poco a poco', 'peu à peu', 'allmählich', 'nach und nach', 'little by little', 'gradually'),
  ...each<ModifierAct>('at once', 'subito', 'subitement', 'plötzlich', 'suddenly', 'at once'),
  ...each<ModifierAct>('always', 'sempre', 'immer', 'toujours', 'always'),
  ...each<ModifierAct>('not', 'non', 'senza', 'sans', 'nicht', 'ohne', 'without', 'not', 'no')
];
