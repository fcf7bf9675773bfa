/** Sounds of instruments: General MIDI programs (MIDI Association, General MIDI level 1) and the samples that come along. */
export interface Sound {
  pattern: RegExp;
  /** 0-based program. */
  program: number;
  /** Set of samples, nearest to the instrument. */
  samples: SampleSet;
  /** A held note can swell. */
  sustained: boolean;
}

export const SAMPLE_SETS = [
  'violin',
  'cello',
  'contrabass',
  'flute',
  'clarinet',
  'bassoon',
  'french-horn',
  'trumpet',
  'trombone',
  'tuba',
  'saxophone',
  'piano',
  'organ',
  'guitar-nylon',
  'xylophone'
] as const;
export type SampleSet = (typeof SAMPLE_SETS)[number];

const sound = (pattern: RegExp, program: number, samples: SampleSet, sustained = true): Sound => ({ pattern, program, samples, sustained });

/** The first that fits a part's name or instrument sound is taken; names that hold others come first. */
const SOUNDS: readonly Sound[] = [
  sound(/english horn|cor anglais|englischhorn/i, 69, 'clarinet'),
  sound(/contrabassoon|bassoon|fagott|basson\b|dulcian/i, 70, 'bassoon'),
  sound(/oboe|hautbois|shawm|bagpipe|pipes?\b/i, 68, 'clarinet'),
  sound(/clarinet|klarinette|chalumeau/i, 71, 'clarinet'),
  sound(/sax/i, 65, 'saxophone'),
  sound(/piccolo/i, 72, 'flute'),
  sound(/recorder|blockflöte|whistle/i, 74, 'flute'),
  sound(/flute|flöte|flauto|traverso/i, 73, 'flute'),
  sound(/french horn|horn|corno|cor\b/i, 60, 'french-horn'),
  sound(/trumpet|trompete|tromba|cornet|bugle|clarino/i, 56, 'trumpet'),
  sound(/bass trombone|trombone|posaune/i, 57, 'trombone'),
  sound(/tuba|euphonium|bombard/i, 58, 'tuba'),
  sound(/contrabass|double bass|kontrabass|violone/i, 43, 'contrabass'),
  sound(/violoncello|cello|gamba/i, 42, 'cello'),
  sound(/viola|bratsche|alto$/i, 41, 'violin'),
  sound(/violin|geige|fiddle|strings?/i, 40, 'violin'),
  sound(/guitar|gitarre|lute|laute|theorbo|harp\b|harfe/i, 24, 'guitar-nylon', false),
  sound(/organ|orgel|harmonium|orgue/i, 19, 'organ'),
  sound(/harpsichord|cembalo|clavecin/i, 6, 'piano', false),
  sound(/piano|klavier|clavier|keyboard|fortepiano|clavichord/i, 0, 'piano', false),
  sound(/marimba|xylophone|vibraphone|glockenspiel|celesta/i, 13, 'xylophone', false),
  sound(/soprano|mezzo|tenor|baritone|voice|choir|vocal|gesang|sopran|chant|singer/i, 52, 'clarinet')
];

/** Where no name fits, the keyboard. */
const FALLBACK_SOUND: Sound = { pattern: /^/, program: 0, samples: 'piano', sustained: false };

export function soundOf(name: string, instrument = ''): Sound {
  return SOUNDS.find((s) => s.pattern.test(name)) ?? SOUNDS.find((s) => s.pattern.test(instrument)) ?? FALLBACK_SOUND;
}
