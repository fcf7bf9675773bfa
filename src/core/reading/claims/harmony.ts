import { parseKey } from '../../analysis/keys.ts';
import { TONES, type Quality } from '../../analysis/vocabulary.ts';
import { add, eq, lt, lte } from '../../score/fraction.ts';
import { fifthsOf, fifthsPc } from '../../score/pitch.ts';
import type { ChordFact } from '../../analysis/facts.ts';
import type { Claim } from '../../markings/claim.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { heightOf, inARow, pitchOf, placeLevel, silentAfter } from './page.ts';

/** Pitch classes of a chord given by root name and quality. */
const pcsOf = (root: string, quality: Quality): number[] =>
  TONES[quality].map((t) => fifthsPc((parseKey(`${root} major`)?.tonic ?? 0) + t));

/** Places on the line of fifths that sound while a chord lasts. */
const heardIn = ({ start, end }: ChordFact, { score }: Ground): Set<number> =>
  new Set(
    score.notes
      .filter((n) => n.sounding && !n.grace && lt(n.start, end) && lt(start, add(n.start, n.duration)))
      .map((n) => fifthsOf(n.sounding!))
  );

const chordOf = ({ fact, at }: Claim, { facts }: Ground): ChordFact | undefined =>
  facts.chords.find((c) => (fact ? c.id === fact : lte(c.start, at) && lt(at, c.end)));

const cadenceOf = ({ fact }: Claim, { facts }: Ground) => facts.cadences.find((c) => c.id === fact);

/** The root of the chord that a cadence reaches sounds there. */
function reached(claim: Claim, ground: Ground): boolean {
  const cadence = cadenceOf(claim, ground);
  const goal = cadence && ground.facts.chords.find((c) => c.id === cadence.to);
  return goal !== undefined && heardIn(goal, ground).has(parseKey(`${goal.root} major`)?.tonic ?? 99);
}

/** What is said of chords, cadences and dissonances. */
export const OF_HARMONY = {
  'leans on the chord': {
    beat: true,
    words: (claim, ground) => `a note foreign to ${chordOf(claim, ground)?.roman ?? 'the chord'} resolves by step`,
    holds: (claim, ground) => {
      const { page, score } = ground;
      const [a, b] = page.notes(claim.notes) ?? [];
      const chord = chordOf(claim, ground);
      if (!b?.sounding || !a.sounding || !chord) return false;
      // A note of a scale on its way down passes, and does not lean.
      const before = page.previous(a);
      const joins = before !== null && !before.rest && eq(add(before.start, before.duration), a.start);
      if (joins && heightOf(before) - heightOf(a) === 1 && lte(before.duration, a.duration)) return false;
      const tones = pcsOf(chord.root, chord.quality);
      const drop = pitchOf(a) - pitchOf(b);
      return (
        inARow(page, [a, b]) &&
        drop >= 1 &&
        drop <= 2 &&
        placeLevel(score, a) > placeLevel(score, b) &&
        !tones.includes(fifthsPc(fifthsOf(a.sounding))) &&
        tones.includes(fifthsPc(fifthsOf(b.sounding)))
      );
    }
  },
  'leads to the dominant': {
    needs: ['beside'],
    words: (claim, ground) => {
      const cadence = cadenceOf(claim, ground);
      const names = ground.facts.chords.filter((c) => eq(c.start, claim.at) || eq(c.start, claim.beside!)).map((c) => c.roman);
      return `${names.join(' leads to ')} of the ${cadence?.type ?? 'cadence'}`;
    },
    holds: (claim, ground) => {
      const before = ground.facts.chords.find((c) => eq(c.start, claim.at));
      return before !== undefined && lt(claim.at, claim.beside!) && reached(claim, ground);
    }
  },
  'chord of colour': {
    words: (claim, ground) => {
      const chord = chordOf(claim, ground);
      return `${chord?.special} (${chord?.roman})`;
    },
    holds: (claim, ground) => {
      const chord = chordOf(claim, ground);
      if (!chord?.special) return false;
      // Every tone of it sounds while it lasts: without one of them it may be another chord.
      const [root, heard] = [parseKey(`${chord.root} major`)?.tonic ?? 0, heardIn(chord, ground)];
      return TONES[chord.quality].every((t) => heard.has(root + t));
    }
  },
  'goes elsewhere': {
    words: () => 'the dominant goes somewhere else than home',
    holds: ({ fact }, { facts }) => facts.cadences.some((c) => c.type === 'DC' && c.to === fact)
  },
  'harmony changes': {
    beat: true,
    words: (claim, ground) =>
      `the harmony changes to ${ground.facts.chords.find((c) => eq(c.start, claim.at))?.roman ?? 'another chord'} before the ${cadenceOf(claim, ground)?.type ?? 'cadence'}`,
    holds: (claim, ground) => {
      const k = ground.facts.chords.findIndex((c) => eq(c.start, claim.at));
      const [before, now] = [ground.facts.chords[k - 1], ground.facts.chords[k]];
      return before !== undefined && (before.root !== now.root || before.roman !== now.roman) && cadenceOf(claim, ground) !== undefined;
    }
  },
  'closes the section': {
    words: (claim, ground) => `${cadenceOf(claim, ground)?.type ?? 'a cadence'} closes the section`,
    holds: reached
  },
  'goes on after the close': {
    needs: ['text'],
    words: ({ text }) => `the music goes on after the close in ${text}`,
    holds: (claim, ground) => ground.page.within(claim.part, claim.at, add(claim.at, { n: 1, d: 1 })).length > 0
  },
  'last cadence': {
    words: () => 'the last cadence',
    holds: (claim, ground) => ground.facts.cadences.at(-1)?.id === claim.fact && reached(claim, ground)
  },
  'half cadence': {
    words: () => 'a half cadence, the phrase stands open',
    holds: (claim, ground) => cadenceOf(claim, ground)?.type === 'HC' && reached(claim, ground)
  },
  'phrase ends without a rest': {
    words: () => 'a phrase ends without a rest',
    holds: ({ notes, fact }, { page, facts }) => {
      const [last, next] = page.notes(notes) ?? [];
      const phrase = facts.phrases.find((p) => p.id === fact);
      return next !== undefined && phrase !== undefined && eq(page.end(last), next.start) && !silentAfter(page, last);
    }
  }
} satisfies Record<string, ClaimKind>;
