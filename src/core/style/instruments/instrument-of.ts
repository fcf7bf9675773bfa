import type { Part, Score } from '../../score/model.ts';
import { midi } from '../../score/pitch.ts';
import { instrumentByKey, INSTRUMENTS, UNKNOWN_INSTRUMENT } from './index.ts';
import { isWithin, type Instrument } from './instrument.ts';

/** What is known of a part beyond its name. */
interface Evidence {
  sound: string;
  clefs: ReadonlySet<string>;
  /** Sounding heights of its notes, MIDI numbers. */
  heights: readonly number[];
  /** Semitones from written to sounding pitch, 0 to 11. */
  transposition: number;
  /** Words stand under its notes. */
  sung: boolean;
  staves: number;
  unpitched: boolean;
}

/** How much each piece of evidence weighs where a name fits several instruments. Set by hand on the doubtful names in the tests. */
const WEIGHTS = { sound: 4, sung: 3, clef: 1, range: 2, transposition: 1.5, staves: 3 };

/** A name without accents, numbers, keys and plurals: "2. Hörner in Es" is "horner". */
function bare(name: string): string {
  return name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/ß/g, 'ss')
    .replace(/[’'`´]/g, '’')
    .replace(/[^a-z’]+/g, ' ')
    .replace(/\b(?:i{1,3}|iv|v|vi{1,3})\b/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

const BY_NAME = new Map<string, Instrument[]>();
for (const instrument of INSTRUMENTS) for (const name of instrument.names) BY_NAME.set(name, [...(BY_NAME.get(name) ?? []), instrument]);
const LONGEST = Math.max(...[...BY_NAME.keys()].map((n) => n.split(' ').length));

/** Instruments that a name may mean: the longest name in it, the first of equals; plurals count as their singular. */
function named(name: string): readonly Instrument[] {
  const words = bare(name).split(' ');
  const known = (text: string): Instrument[] | undefined =>
    BY_NAME.get(text) ?? BY_NAME.get(text.replace(/(?:es|s|en|n)$/, '')) ?? BY_NAME.get(text.replace(/s$/, ''));
  for (let n = Math.min(LONGEST, words.length); n > 0; n--)
    for (let k = 0; k + n <= words.length; k++) {
      const found = known(words.slice(k, k + n).join(' '));
      if (found) return found;
    }
  return [];
}

/** How much of a standard sound's id an instrument shares: 0 for none. */
const soundShare = (instrument: Instrument, sound: string): number =>
  Math.max(0, ...instrument.sounds.filter((s) => sound === s || sound.startsWith(`${s}.`)).map((s) => s.length));

function bySound(sound: string): readonly Instrument[] {
  const best = Math.max(...INSTRUMENTS.map((i) => soundShare(i, sound)));
  return best ? INSTRUMENTS.filter((i) => soundShare(i, sound) === best) : [];
}

/** How well the evidence fits an instrument. */
function fit(instrument: Instrument, e: Evidence): number {
  let sum = soundShare(instrument, e.sound) ? WEIGHTS.sound : 0;
  if (e.sung !== (instrument.family === 'voice')) sum -= WEIGHTS.sung;
  if ([...e.clefs].some((c) => (instrument.clefs as readonly string[]).includes(c))) sum += WEIGHTS.clef;
  if (instrument.transpositions.includes(e.transposition)) sum += WEIGHTS.transposition;
  const { range } = instrument;
  if (range && e.heights.length) sum += (WEIGHTS.range * e.heights.filter((h) => isWithin(range, h)).length) / e.heights.length;
  if (e.staves > 1) sum += instrument.family === 'keyboard' || instrument.key === 'harp' ? WEIGHTS.staves : 0;
  return sum;
}

function evidenceOf(score: Score, part: Part): Evidence {
  const notes = score.notes.filter((n) => n.part === part.index && !n.rest && !n.cue);
  const clefs = new Set(part.changes.flatMap((c) => c.clefs ?? []).map(({ clef }) => clef.sign));
  return {
    sound: (part.instrument ?? '').toLowerCase(),
    clefs,
    heights: notes.flatMap((n) => (n.sounding ? [midi(n.sounding)] : [])),
    transposition: ((part.transpose.chromatic % 12) + 12) % 12,
    sung: notes.some((n) => n.lyrics?.length),
    staves: part.staves,
    unpitched: notes.length > 0 && notes.every((n) => n.unpitched)
  };
}

/** Corrections by the teacher: keys of instruments by index of the part. */
export type InstrumentChoices = Readonly<Record<number, string>>;

/**
 * The instrument of a part: as the teacher has corrected it; else by its name, then by the sound that the file asks for, then
 * by what it looks like (words under notes, staves, unpitched notes). Where a name or a sound fits several, clef, range,
 * transposition and words settle it. `UNKNOWN_INSTRUMENT` where nothing tells.
 */
export function instrumentOf(score: Score, part: Part, choices: InstrumentChoices = {}): Instrument {
  const chosen = choices[part.index];
  if (chosen !== undefined) return instrumentByKey(chosen) ?? UNKNOWN_INSTRUMENT;
  for (const candidates of [
    named(part.name),
    bySound((part.instrument ?? '').toLowerCase()),
    named(part.instrument ?? ''),
    named(part.abbreviation ?? '')
  ]) {
    if (candidates.length === 1) return candidates[0];
    if (candidates.length > 1) return best(candidates, evidenceOf(score, part));
  }
  const evidence = evidenceOf(score, part);
  if (evidence.staves > 1) return instrumentByKey('piano')!;
  if (evidence.sung) return instrumentByKey('voice')!;
  if (evidence.unpitched) return instrumentByKey('drums')!;
  return UNKNOWN_INSTRUMENT;
}

const best = (candidates: readonly Instrument[], evidence: Evidence): Instrument =>
  candidates.reduce((a, b) => (fit(b, evidence) > fit(a, evidence) ? b : a));
