import { barLabel, barList, measureAt } from '../score/position.ts';
import { LIMITS } from '../style/limits.ts';
import type { ChordFact, Facts, KeyFact } from '../analysis/facts.ts';
import { CADENCE_NAMES } from '../analysis/facts.ts';
import { alteredNotes } from '../score/accidentals.ts';
import { add, cmp, lt, toNumber, type Fraction } from '../score/fraction.ts';
import { printMetronome } from '../score/metronome.ts';
import type { Direction, Score } from '../score/model.ts';
import { pitchName } from '../score/pitch.ts';
import { sureness } from '../analysis/confidence.ts';
import { keyForPlayer, keyWords, toldKey } from '../analysis/key-words.ts';
import { lookUp, phrasesOf } from '../style/terms/lookup.ts';
import { handName, handsOfPart } from './hands.ts';
import { dynamicLevels, levelInForce } from './in-force.ts';
import type { Marking } from '../markings/marking.ts';
import { placeName } from './moments.ts';
import { tempoInForce } from '../score/tempo.ts';
import { inSigns } from '../analysis/words.ts';

/** What is known about some bars, in words, in the order in which a teacher says it. */
export interface BriefText {
  whatItIs: string[];
  whatThePageSays: string[];
  howLongAndLoud: string[];
  howToPractise: string[];
}

function pageSays(d: Direction): string | null {
  switch (d.kind) {
    case 'dynamic':
      return d.value;
    case 'words': {
      const { terms } = lookUp(d.text);
      const phrases = phrasesOf(terms).map((p) => p.translation);
      return `“${d.text}”${phrases.length ? `: ${phrases.join(', ')}` : ''}`;
    }
    case 'metronome':
      return d.perMinute ? printMetronome(d) : null;
    case 'wedge':
      return d.type === 'crescendo' || d.type === 'diminuendo' ? `${d.type} hairpin` : null;
    case 'rehearsal':
      return `letter ${d.text}`;
    default:
      return null;
  }
}

/**
 * The brief of measures `from` to `to`, both included, for one part. Loudness follows the printed and the
 * editorial marks.
 */
export function brief(score: Score, facts: Facts, markings: readonly Marking[], from: number, to: number, part = 0): BriefText {
  const start = score.measures[from].start;
  const end = add(score.measures[to].start, score.measures[to].length);
  const within = (t: Fraction) => cmp(t, start) >= 0 && lt(t, end);
  const over = (f: { start: Fraction; end: Fraction }) => lt(f.start, end) && cmp(f.end, start) > 0;
  const result: BriefText = { whatItIs: [], whatThePageSays: [], howLongAndLoud: [], howToPractise: [] };

  const player = score.parts[part].transpose;
  const forPlayer = (k: KeyFact): string =>
    player.chromatic % 12 === 0 || k.tonality === 'none' ? toldKey(k) : `${toldKey(k)}, written ${keyForPlayer(k.key, player, k.tonality)}`;
  const keys = facts.keys.filter(over).map((k) => `${forPlayer(k)} (${sureness(k.confidence)}; ${k.evidence})`);
  if (keys.length) result.whatItIs.push(`Key: ${keys.join(', then ')}`);
  const long = to - from >= LIMITS.briefBars;
  const tell: Tell = long ? byBars : oneByOne;
  const chords = facts.chords.filter(over);
  if (chords.length) result.whatItIs.push(long ? chordSummary(score, chords) : `Chords: ${chords.map(chordName).join(' – ')}`);
  result.whatItIs.push(
    ...tell(
      score,
      facts.cadences.filter((c) => within(c.start)).map((c) => ({ at: c.start, text: `${CADENCE_NAMES[c.type]} in ${keyWords(c.key)}` }))
    )
  );
  const begins = facts.phrases.filter((p) => within(p.start)).map((p) => ({ at: p.start, text: 'a phrase begins' }));
  if (long) result.whatItIs.push(...byBars(score, begins));
  else
    facts.phrases.forEach((p, k) => {
      if (within(p.start)) result.whatItIs.push(`${placeName(score, p.start)}: phrase ${k + 1} begins`);
      if (within(p.last)) result.whatItIs.push(`${placeName(score, p.last)}: last note of phrase ${k + 1}`);
    });

  for (const line of others(score, part, from, to)) result.whatItIs.push(line);
  const notes = score.notes.filter((n) => n.part === part && n.measure >= from && n.measure <= to && !n.cue);
  const signs = notes.flatMap((n) =>
    (n.marks ?? []).map((m) => ({ at: n.start, text: `${m.name.replace(/-/g, ' ')}${m.value ? ` ${m.value}` : ''}` }))
  );
  const said = score.directions.flatMap((d) => {
    const text = within(d.start) ? pageSays(d) : null;
    return text ? [{ at: d.start, text }] : [];
  });
  result.whatThePageSays.push(...tell(score, said), ...tell(score, signs));
  const slurs = score.slurs.filter((s) => s.kind === 'slur' && notes.some((n) => n.id === s.from)).length;
  if (slurs) result.whatThePageSays.push(`${slurs} ${slurs === 1 ? 'slur begins' : 'slurs begin'} here`);

  const tempo = tempoInForce(score, start);
  const quarters = toNumber(end) - toNumber(start);
  const lasts = `${quarters} quarter${quarters === 1 ? '' : 's'}`;
  result.howLongAndLoud.push(
    tempo
      ? `${lasts}: ${((60 * quarters) / tempo).toFixed(2)} s as written, at quarter = ${Math.round(tempo)}`
      : `${lasts}; no tempo is given yet`
  );
  const levels = dynamicLevels(score, markings);
  const hands = handsOfPart(score, { markings: [...markings], part });
  for (const staff of hands) {
    const level = levelInForce(levels, part, start, staff);
    const whose = hands.length > 1 ? ` (${handName(staff)})` : '';
    result.howLongAndLoud.push(
      level
        ? `In force${whose}: ${level.editorial ? `[${level.sign}]` : level.sign}, since ${placeName(score, level.start)}`
        : `No dynamic is in force yet${whose}`
    );
  }

  result.howToPractise = practice(score, notes, tempo, from, to);
  return result;
}

/** Something at a moment, in words. */
interface Placed {
  at: Fraction;
  text: string;
}

type Tell = (score: Score, list: readonly Placed[]) => string[];

const oneByOne: Tell = (score, list) => list.map(({ at, text }) => `${placeName(score, at)}: ${text}`);

/** What is the same is said once, with its bars: "staccato: 14 times, in bars 3–6 and 11". */
const byBars: Tell = (score, list) => {
  const found = new Map<string, number[]>();
  for (const { at, text } of list) found.set(text, [...(found.get(text) ?? []), measureAt(score, at).index]);
  return [...found].map(([text, bars]) => {
    const times = bars.length > 1 ? `${bars.length} times, in ` : 'in ';
    return `${text}: ${times}${barList(score.measures, [...new Set(bars)])}`;
  });
};

const chordName = (c: ChordFact): string => inSigns(c.roman) + (c.special ? ` (${c.special})` : '');

/** How many chords there are, which come most, and where those of colour stand. */
function chordSummary(score: Score, chords: readonly ChordFact[]): string {
  const counts = new Map<string, number>();
  for (const c of chords) counts.set(inSigns(c.roman), (counts.get(inSigns(c.roman)) ?? 0) + 1);
  const most = [...counts].sort((a, b) => b[1] - a[1]).slice(0, LIMITS.briefChords);
  const colours = chords.filter((c) => c.special).map((c) => `${chordName(c)} in ${barLabel(score.measures, measureAt(score, c.start))}`);
  return `Chords: ${chords.length}, most often ${most.map(([roman, n]) => `${roman} (${n})`).join(', ')}${colours.length ? `; of colour: ${colours.join(', ')}` : ''}`;
}

/** What the other parts do meanwhile: rest, one note at a time or chords, and in which values. */
function others(score: Score, part: number, from: number, to: number): string[] {
  return score.parts
    .filter((p) => p.index !== part)
    .map((p) => {
      const own = score.notes.filter((n) => n.part === p.index && n.measure >= from && n.measure <= to && !n.rest && !n.cue && !n.grace);
      const name = p.name || `part ${p.index + 1}`;
      if (!own.length) return `${name}: rests`;
      const counts = new Map<string, number>();
      for (const n of own) counts.set(n.type ?? 'notes', (counts.get(n.type ?? 'notes') ?? 0) + 1);
      const [value] = [...counts].sort((a, b) => b[1] - a[1])[0];
      return `${name}: ${own.some((n) => n.chord) ? 'chords' : 'single notes'}, mostly ${value}${value.endsWith('s') ? '' : 's'}`;
    });
}

/** What to do in the practice room, from what the bars hold. Source: handbook 10, common practice. */
function practice(score: Score, notes: Score['notes'], tempo: number | null, from: number, to: number): string[] {
  const lines: string[] = [];
  const shortest = Math.min(...notes.filter((n) => !n.rest && !n.grace).map((n) => toNumber(n.duration)), 99);
  if (tempo && shortest < 99 && tempo / 60 / shortest >= 6)
    lines.push(
      `The shortest notes run at ${(tempo / 60 / shortest).toFixed(1)} a second: slowly with every detail, then up the metronome scale, never faster than the detail survives.`
    );
  if (notes.some((n) => n.tie?.start)) lines.push('Undo the ties first; put them back when the entries are sure.');
  if (notes.some((n) => n.marks?.some((m) => m.group === 'ornament') || n.grace))
    lines.push('First without the ornaments, in time; then add them inside the same rhythm.');
  if (notes.some((n) => n.timeModification)) lines.push('Count the tuplets aloud against the beat before playing them.');
  const carried = alteredNotes(score).filter((a) => !a.printed && a.note.measure >= from && a.note.measure <= to);
  if (carried.length)
    lines.push(
      `Mind what is carried through the bar without a sign: ${inSigns([...new Set(carried.map((a) => pitchName(a.note.pitch!)))].join(', '))}.`
    );
  if (!lines.length) lines.push('Skeleton first: the notes on the strong beats, then some more, then all.');
  return lines;
}
