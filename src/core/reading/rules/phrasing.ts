import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import { parseKey } from '../../analysis/keys.ts';
import { TONES, type Quality } from '../../analysis/vocabulary.ts';
import type { CadenceFact } from '../../analysis/facts.ts';
import { cmp } from '../../score/fraction.ts';
import { fifthsPc } from '../../score/pitch.ts';
import { AT_REST } from '../../style/rule-weights.ts';
import type { RuleContext } from '../context.ts';
import { about } from './find.ts';
import type { Rule } from './rule.ts';

/** The last tone of each phrase but the very last, with its phrase. */
function phraseEnds(c: RuleContext): { tone: Tone; next: Tone; index: number }[] {
  const ends: { tone: Tone; next: Tone; index: number }[] = [];
  c.facts.phrases.slice(0, -1).forEach((phrase, index) => {
    const tones = c.between(phrase.start, phrase.end);
    const tone = tones.at(-1);
    const next = c.firstAt(phrase.end);
    // A part that accompanies, rests there or has just come in ends no phrase.
    const oneHand = tone?.note.staff === next?.note.staff;
    if (tone && next && oneHand && tones.length > 2 && c.hasTune(tone) && comesToRest(c, tones, c.cadenceOf(phrase)))
      ends.push({ tone, next, index });
  });
  return ends;
}

/** The last tone of a phrase is a quarter or more and longer than its usual tones; under a cadence it is enough that it is no shorter. */
function comesToRest(c: RuleContext, tones: readonly Tone[], cadence: CadenceFact | null): boolean {
  const lengths = tones.map((t) => t.end - t.start);
  const last = lengths[lengths.length - 1];
  const usual = [...lengths].sort((a, b) => a - b)[lengths.length >> 1];
  if (last < lengths[lengths.length - 2]) return false;
  const closed = cadence !== null && cmp(cadence.start, tones[tones.length - 1].note.start) <= 0;
  return closed ? last >= usual : last >= AT_REST.ofUsual * usual && last >= AT_REST.quarters * c.sounding.ticksPerQuarter;
}

const STOP = /[,;:.!?–—][”’"»)]*\s*$/;

/** The words go on from one tone to the next: inside a word, into a melisma, or where no stop is printed though the words have stops. */
export function insideWords(c: RuleContext, tone: Tone, next: Tone): boolean {
  const words = tone.note.lyrics;
  if (!words) return next.note.lyrics === undefined && c.line.some((t) => t.note.lyrics) && !melismaEnds(c, tone);
  if (words.some((l) => l.syllabic === 'begin' || l.syllabic === 'middle') || !next.note.lyrics) return true;
  return withStops(c) && !words.some((l) => STOP.test(l.text));
}

const withStops = (c: RuleContext): boolean => c.line.some((t) => t.note.lyrics?.some((l) => STOP.test(l.text)));

/** A tone without a syllable ends the one before it, which may close a sentence. */
function melismaEnds(c: RuleContext, tone: Tone): boolean {
  const sung = c.line.slice(0, c.line.indexOf(tone)).findLast((t) => t.note.lyrics);
  return !withStops(c) || Boolean(sung?.note.lyrics?.some((l) => STOP.test(l.text)));
}

/** A rest follows in the tone's own voice, or a sign parts it. */
const alreadyParted = (tone: Tone, next: Tone): boolean =>
  next.start - tone.end > 0 ||
  (tone.next !== null && tone.next.start > tone.end) ||
  (tone.note.marks ?? []).some((m) => m.name === 'breath-mark' || m.name === 'caesura' || m.group === 'fermata');

export const PHRASING: Rule[] = [
  {
    id: 'breathe-at-phrase-end',
    area: 'phrasing',
    title: 'Breathe where a phrase ends',
    looksAt: 'Phrase ends without a rest, for wind, brass and voice.',
    proposes: 'A breath after the last note of the phrase.',
    periods: { baroque: 0.7, classical: 0.75, romantic: 0.75, swing: 0.55 },
    needs: ['breathes'],
    sources: ['quantz', 'common'],
    find: (c) =>
      phraseEnds(c)
        .filter(({ tone, next }) => !alreadyParted(tone, next) && !c.slurred(tone, next) && !insideWords(c, tone, next))
        .map(({ tone, next, index }) => ({
          kind: 'breath',
          value: 'breath',
          at: tone,
          fact: about('phrase ends without a rest', [tone, next], { fact: c.facts.phrases[index].id }),
          facts: [c.facts.phrases[index].id],
          confidence: c.facts.phrases[index].confidence
        }))
  },
  {
    id: 'part-the-phrases',
    area: 'phrasing',
    title: 'Let the ear hear where one phrase ends and the next begins',
    looksAt: 'Phrase ends without a rest, for strings and keyboard.',
    proposes: 'A comma: the bow or hand leaves the last note early.',
    periods: { baroque: 0.7, classical: 0.6 },
    unless: ['breathes'],
    sources: ['turk', 'lmozart'],
    find: (c) =>
      phraseEnds(c)
        .filter(({ tone, next }) => !alreadyParted(tone, next) && !c.slurred(tone, next) && !insideWords(c, tone, next))
        .map(({ tone, next, index }) => ({
          kind: 'comma',
          value: 'comma',
          at: tone,
          fact: about('phrase ends without a rest', [tone, next], { fact: c.facts.phrases[index].id }),
          facts: [c.facts.phrases[index].id],
          confidence: c.facts.phrases[index].confidence
        }))
  },
  {
    id: 'slur-the-appoggiatura',
    area: 'phrasing',
    title: 'Bind the appoggiatura to its resolution',
    looksAt: 'An accented note foreign to the chord that falls by step into it, unslurred.',
    proposes: 'A slur over the pair.',
    periods: { baroque: 0.6, classical: 0.75, romantic: 0.6 },
    sources: ['quantz', 'cpebach', 'lmozart'],
    find: (c) =>
      leaningPairs(c)
        .filter(({ a, b }) => !c.slurred(a, b) && maySlur([a, b]))
        .map(({ a, b, chord }) => ({
          kind: 'slur',
          value: 'slur',
          at: a,
          to: b,
          fact: about('leans on the chord', [a, b], { fact: chord.id }),
          facts: [chord.id],
          confidence: chord.confidence
        }))
  },
  {
    id: 'one-line-to-the-goal',
    area: 'phrasing',
    title: 'Carry the line through to its goal',
    looksAt: 'Stepwise runs of at least five notes within a phrase that carry no slur.',
    proposes: 'A slur over the run.',
    periods: { romantic: 0.6 },
    sources: ['czerny', 'common'],
    find: (c) =>
      stepwiseRuns(c, 5)
        .filter((run) => run.slice(1).every((t, k) => !c.slurred(run[k], t)) && maySlur(run))
        .map((run) => ({
          kind: 'slur',
          value: 'slur',
          at: run[0],
          to: run[run.length - 1],
          fact: about('stepwise line', run)
        }))
  }
];

/** A slur may lie over notes without dots, in one staff, and in a sung line over one syllable only. */
const maySlur = (run: readonly Tone[]): boolean =>
  run.every((t) => t.note.staff === run[0].note.staff && !t.note.marks?.some((m) => /staccat/.test(m.name))) &&
  run.slice(1).every((t) => !t.note.lyrics?.length);

/** Accented dissonances with their resolutions. */
export function leaningPairs(c: RuleContext): { a: Tone; b: Tone; chord: NonNullable<ReturnType<RuleContext['chordAt']>> }[] {
  const pairs: { a: Tone; b: Tone; chord: NonNullable<ReturnType<RuleContext['chordAt']>> }[] = [];
  for (let k = 0; k + 1 < c.line.length; k++) {
    const a = c.line[k];
    const b = c.line[k + 1];
    const drop = a.midi - b.midi;
    const accented =
      levelAt(c.sounding, a.start) >= 1 &&
      levelAt(c.sounding, a.start) > levelAt(c.sounding, b.start) &&
      a.end - a.start >= b.end - b.start &&
      b.end - b.start >= c.sounding.ticksPerQuarter / 4;
    // What a scale only passes through leans on nothing, wherever the beat falls.
    const before = c.line[k - 1];
    const passes = before?.end === a.start && before.height - a.height === 1 && before.end - before.start <= a.end - a.start;
    if (!accented || passes || drop < 1 || drop > 2 || b.start !== a.end) continue;
    const chord = c.chordAt(b.note.start);
    if (!chord || chord !== c.chordAt(a.note.start) || chord.cadential) continue;
    if (isForeign(c, a) && !isForeign(c, b)) pairs.push({ a, b, chord });
  }
  return pairs;
}

/** True when a tone is not a member of the chord under it. */
function isForeign(c: RuleContext, tone: Tone): boolean {
  const chord = c.chordAt(tone.note.start);
  return chord !== null && !tonesOf(chord.root, chord.quality).includes(fifthsPc(tone.fifths));
}

/** Neighbouring stepwise tones in one direction, of nearly equal length, within one phrase. */
function stepwiseRuns(c: RuleContext, least: number): Tone[][] {
  const runs: Tone[][] = [];
  const starts = new Set(c.facts.phrases.map((p) => `${p.start.n}/${p.start.d}`));
  let run: Tone[] = [];
  const close = () => {
    if (run.length >= least) runs.push(run);
  };
  for (const tone of c.line) {
    const last = run.at(-1);
    const step = last ? tone.midi - last.midi : 0;
    const direction = run.length > 1 ? Math.sign(run[1].midi - run[0].midi) : Math.sign(step);
    const goesOn =
      last &&
      tone.start === last.end &&
      Math.abs(step) >= 1 &&
      Math.abs(step) <= 2 &&
      Math.sign(step) === direction &&
      !starts.has(`${tone.note.start.n}/${tone.note.start.d}`);
    if (goesOn) run.push(tone);
    else {
      close();
      run = last && tone.start === last.end && Math.abs(step) >= 1 && Math.abs(step) <= 2 && run.length > 1 ? [last, tone] : [tone];
    }
  }
  close();
  return runs;
}

/** Pitch classes of a chord given by root name and quality. */
function tonesOf(root: string, quality: Quality): number[] {
  const fifths = parseKey(`${root} major`)?.tonic ?? 0;
  return TONES[quality].map((t) => fifthsPc(fifths + t));
}
