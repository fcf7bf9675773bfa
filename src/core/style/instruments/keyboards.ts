import { range, type Instrument } from './instrument.ts';

export const KEYBOARDS = [
  {
    key: 'piano',
    name: 'piano',
    family: 'keyboard',
    can: ['keys', 'strikes'],
    names: [
      'piano',
      'pianoforte',
      'klavier',
      'clavier',
      'fortepiano',
      'hammerklavier',
      'pno',
      'pn',
      'pf',
      'pfte',
      'klav',
      'keyboard',
      'grand piano',
      'electric piano',
      'clavichord'
    ],
    sounds: ['keyboard.piano', 'keyboard.clavichord', 'keyboard'],
    range: range('A0 C8 C7'),
    clefs: ['G', 'F'],
    transpositions: [0],
    program: 0,
    samples: 'piano'
  },
  {
    key: 'harpsichord',
    name: 'harpsichord',
    family: 'keyboard',
    can: ['keys', 'plucks'],
    names: [
      'harpsichord',
      'cembalo',
      'clavecin',
      'clavicembalo',
      'cemb',
      'hpschd',
      'spinet',
      'virginal',
      'basso continuo',
      'continuo',
      'b c'
    ],
    sounds: ['keyboard.harpsichord', 'keyboard.virginal'],
    range: range('F1 F6 F6'),
    clefs: ['G', 'F'],
    transpositions: [0],
    program: 6,
    samples: 'piano'
  },
  {
    key: 'organ',
    name: 'organ',
    family: 'keyboard',
    can: ['keys', 'holds'],
    names: ['organ', 'orgel', 'organo', 'orgue', 'pipe organ', 'org', 'harmonium', 'positiv', 'pedal', 'pedals', 'reed organ'],
    sounds: ['keyboard.organ', 'keyboard.harmonium', 'keyboard.accordion'],
    range: range('C2 C7 C7'),
    clefs: ['G', 'F'],
    transpositions: [0],
    program: 19,
    samples: 'organ'
  },
  {
    key: 'accordion',
    name: 'accordion',
    family: 'keyboard',
    can: ['keys', 'holds'],
    names: ['accordion', 'akkordeon', 'fisarmonica', 'accordeon', 'bandoneon', 'concertina'],
    sounds: ['keyboard.accordion', 'keyboard.bandoneon', 'keyboard.concertina'],
    range: null,
    clefs: ['G', 'F'],
    transpositions: [0],
    program: 21,
    samples: 'organ'
  },
  {
    key: 'celesta',
    name: 'celesta',
    family: 'keyboard',
    can: ['keys', 'strikes'],
    names: ['celesta', 'celeste', 'toy piano'],
    sounds: ['keyboard.celesta', 'keyboard.toy-piano'],
    range: range('C4 C8 C8'),
    clefs: ['G', 'F'],
    transpositions: [0],
    program: 8,
    samples: 'xylophone'
  }
] as const satisfies readonly Instrument[];
