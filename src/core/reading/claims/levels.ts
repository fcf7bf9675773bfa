import { add, cmp, eq, lt, lte, toNumber } from '../../score/fraction.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { LEADING_HAIRPIN, WAY_UP } from '../../style/rule-weights.ts';
import { isForHand, levelInForce, type Level } from '../in-force.ts';
import type { Claim } from '../../markings/claim.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { heightOf, pitchOf, type Page } from './page.ts';
import { rangeWords } from './places.ts';

const levelAt = ({ part, at }: Pick<Claim, 'part' | 'at'>, { levels }: Ground): Level | null => levelInForce(levels, part, at);

/** The level of a part before a moment. */
const levelBefore = ({ part, at }: Claim, { levels }: Ground): Level | null =>
  levels.findLast((l) => l.part === part && isForHand(l, 1) && lt(l.start, at)) ?? null;

const printedWedge = (ground: Ground, { part, at }: Claim, kind: 'crescendo' | 'diminuendo') =>
  ground.score.hairpins.find((h) => h.part === part && h.kind === kind && eq(h.start, at));

/** The notes of a measure as text: the same text, the same music. */
export const contentOf = (page: Page, part: number, measure: number): string =>
  page
    .inMeasure(part, measure)
    .map((n) => `${n.onset.n}/${n.onset.d}:${pitchOf(n)}`)
    .sort()
    .join(' ');

/** Numbers of so many bars, from 0; none where that many cannot be. */
export const barsOf = (count: number, { measures }: Ground['score']): number[] =>
  count >= 1 && count <= measures.length ? measures.slice(0, count).map((_, k) => k) : [];

/** What is said of loudness: levels in force, hairpins, ways up and down, repetitions. Levels are told as they hold now. */
export const OF_LOUDNESS = {
  'no dynamic at the beginning': {
    words: ({ text }) => `no dynamic stands where the part begins${text ? `; ${text}` : ''}`,
    holds: ({ part, at }, { score }) => !score.directions.some((d) => d.kind === 'dynamic' && d.part === part && lte(d.start, at))
  },
  'section without a dynamic': {
    words: () => 'a section begins without a dynamic',
    holds: ({ part, at }, { score }) => {
      const bar = measureAt(score, at);
      const before = score.measures[bar.index - 1];
      const opens = before && (bar.repeatStart || before.repeatEnd || before.barline === 'light-light' || bar.rehearsal);
      return (
        Boolean(opens) &&
        !bar.endingStart?.some((n) => n > 1) &&
        !score.directions.some((d) => d.kind === 'dynamic' && d.part === part && eq(d.start, at))
      );
    }
  },
  'repeats at once': {
    needs: ['count'],
    words: ({ count }) => `repeats the ${count === 1 ? 'bar' : `${count} bars`} before note for note`,
    holds: ({ part, at, count }, { score, page }) => {
      const bar = measureAt(score, at).index;
      const content = (m: number): string => contentOf(page, part, m);
      const bars = barsOf(count!, score);
      return bars.length > 0 && bars.every((k) => content(bar + k) !== '' && content(bar + k) === content(bar + k - count!));
    }
  },
  'level of before': {
    needs: ['beside'],
    words: ({ beside, at, part }, ground) => {
      const until = ground.page.within(part, beside!, at).at(-1);
      return `the level of before, after ${rangeWords(ground.score, beside!, until?.start ?? beside!)}`;
    },
    holds: (claim, ground) => {
      const [now, before] = [levelAt(claim, ground), levelBefore({ ...claim, at: claim.beside! }, ground)];
      // The level of before is in force again, where any was.
      return lt(claim.beside!, claim.at) && (!before || now?.step === before.step);
    }
  },
  terrace: {
    words: (claim, ground) => {
      const [now, before] = [levelAt(claim, ground), levelBefore(claim, ground)];
      return `${now?.sign ?? 'a level'} after ${before?.sign ?? 'none'}, and nothing printed between them`;
    },
    holds: (claim, ground) => {
      const [now, before] = [levelAt(claim, ground), levelBefore(claim, ground)];
      if (!now || !before || !eq(now.start, claim.at) || now.step === before.step) return false;
      return !ground.score.hairpins.some((h) => h.part === claim.part && lt(h.start, claim.at) && lt(before.start, h.end));
    }
  },
  'another crescendo follows': {
    needs: ['beside'],
    words: ({ beside }, { score }) => `another crescendo follows in ${barLabel(score.measures, measureAt(score, beside!))}`,
    holds: (claim, ground) =>
      printedWedge(ground, claim, 'crescendo') !== undefined &&
      printedWedge(ground, { ...claim, at: claim.beside! }, 'crescendo') !== undefined &&
      lt(claim.at, claim.beside!)
  },
  'carries by itself': {
    needs: ['text'],
    words: (claim, ground) => `${levelAt(claim, ground)?.sign ?? 'loud'} where the ${claim.text} carries by itself`,
    holds: (claim, ground) => (levelAt(claim, ground)?.step ?? 0) >= dynamicStep('f')! && ground.page.notes(claim.notes) !== null
  },
  'speaks weakly': {
    needs: ['text'],
    words: (claim, ground) => `${levelAt(claim, ground)?.sign ?? 'soft'} in the lowest fifth of the ${claim.text}`,
    holds: (claim, ground) => (levelAt(claim, ground)?.step ?? 9) <= dynamicStep('pp')! && ground.page.notes(claim.notes) !== null
  },
  climbs: {
    needs: ['to'],
    placed: true,
    words: ({ at, to }, { score }) => `${rangeWords(score, at, to!)}: the line climbs to its top note`,
    holds: ({ notes, part }, { page }) => {
      const [low, top] = page.notes(notes) ?? [];
      if (!top || pitchOf(top) - pitchOf(low) < WAY_UP) return false;
      const way = page.within(part, low.start, top.start).filter((n) => n.staff === top.staff);
      return way.every((n) => pitchOf(n) <= pitchOf(top));
    }
  },
  sinks: {
    needs: ['to'],
    placed: true,
    words: ({ at, to }, { score }) => `${rangeWords(score, at, to!)}: the line sinks`,
    holds: ({ notes }, { page }) => {
      const [top, low] = page.notes(notes) ?? [];
      return low !== undefined && pitchOf(top) - pitchOf(low) >= WAY_UP;
    }
  },
  'hairpin without a goal': {
    needs: ['text'],
    words: ({ text }) => `a printed ${text} has no goal`,
    holds: (claim, ground) => {
      const wedge = printedWedge(ground, claim, claim.text as 'crescendo' | 'diminuendo');
      if (!wedge || toNumber(wedge.end) - toNumber(wedge.start) < LEADING_HAIRPIN) return false;
      const until = add(wedge.end, measureAt(ground.score, wedge.end).length);
      return !ground.score.directions.some(
        (d) =>
          d.kind === 'dynamic' && dynamicStep(d.value) !== null && d.part === claim.part && lte(wedge.end, d.start) && lt(d.start, until)
      );
    }
  },
  'three times': {
    needs: ['to', 'text'],
    words: ({ text }) => text!,
    holds: ({ part, at, to }, { page }) => {
      const third = (toNumber(to!) - toNumber(at)) / 3;
      const content = (k: number): string =>
        page
          .within(part, at, to!)
          .filter((n) => Math.floor((toNumber(n.start) - toNumber(at)) / third + 1e-9) === k)
          .map((n) => `${((toNumber(n.start) - toNumber(at)) % third).toFixed(4)}:${pitchOf(n)}`)
          .sort()
          .join(' ');
      return content(0) !== '' && content(0) === content(1) && content(1) === content(2);
    }
  },
  'chromatic line': {
    words: ({ notes }, { page }) => {
      const all = page.notes(notes)!;
      return `a chromatic line goes ${pitchOf(all.at(-1)!) > pitchOf(all[0]) ? 'up' : 'down'}`;
    },
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      if (!all || all.length < 4) return false;
      const way = pitchOf(all[1]) - pitchOf(all[0]);
      return Math.abs(way) === 1 && all.slice(1).every((n, k) => pitchOf(n) - pitchOf(all[k]) === way);
    }
  },
  'highest note': {
    words: () => 'the highest note of the line, and it comes once',
    holds: ({ notes, part }, { score, page }) => {
      const [note] = page.notes(notes) ?? [];
      if (!note) return false;
      return !score.notes.some(
        (n) => n.part === part && !n.rest && !n.grace && !n.cue && !n.tie?.stop && n.id !== note.id && pitchOf(n) >= pitchOf(note)
      );
    }
  },
  'lower staff accompanies': {
    words: () => 'the lower staff accompanies in broken or repeated notes',
    holds: ({ part, at }, { score, page }) => {
      const notes = page.inMeasure(part, measureAt(score, at).index).filter((n) => n.staff === 2);
      const onsets = [...new Set(notes.map((n) => toNumber(n.onset)))].sort((a, b) => a - b);
      if (onsets.length < 3 || notes.some((n) => n.lyrics)) return false;
      const tops = onsets.map((o) => notes.filter((n) => toNumber(n.onset) === o).sort((a, b) => pitchOf(b) - pitchOf(a))[0]);
      // Broken and repeated notes leap or stand still; a line moves by step.
      const steps = tops.slice(1).filter((n, k) => Math.abs(heightOf(n) - heightOf(tops[k])) === 1).length;
      return 2 * steps <= tops.length - 1;
    }
  },
  'tune below': {
    words: () => 'the lower staff has the line, the upper one repeats chords',
    holds: ({ part, at }, { score, page }) => {
      const upper = page.inMeasure(part, measureAt(score, at).index).filter((n) => n.staff === 1);
      return upper.some((n) => n.chord) || new Set(upper.map(pitchOf)).size < upper.length;
    }
  },
  'suddenly softer': {
    needs: ['beside'],
    words: (claim, ground) => `${levelAt(claim, ground)?.sign ?? 'a softer level'} comes suddenly after a crescendo`,
    holds: (claim, ground) => {
      const { part, at, beside } = claim;
      const wedge = printedWedge(ground, { ...claim, at: beside! }, 'crescendo');
      const [now, before] = [levelAt(claim, ground), levelInForce(ground.levels, part, beside!)];
      return wedge !== undefined && now !== null && before !== null && eq(now.start, at) && now.step <= before.step;
    }
  },
  'sforzando within': {
    needs: ['text'],
    words: (claim, ground) => `${claim.text} while ${levelAt(claim, ground)?.sign ?? 'soft'} is in force`,
    holds: (claim, ground) =>
      (levelAt(claim, ground)?.step ?? 9) <= dynamicStep('p')! &&
      ground.score.directions.some((d) => d.kind === 'dynamic' && d.value === claim.text && d.part === claim.part && eq(d.start, claim.at))
  },
  'weaker ending': {
    words: ({ text }) => `after the ${text} the phrase ends on a weaker beat`,
    holds: ({ notes, at }, { page, facts, score }) => {
      const [first, last] = page.notes(notes) ?? [];
      if (!last || !facts.cadences.some((c) => eq(c.start, at))) return false;
      const bar = measureAt(score, last.start);
      return lt(first.start, last.start) && cmp(last.start, bar.start) !== 0;
    }
  }
} satisfies Record<string, ClaimKind>;
