import { add, cmp, eq, lt, lte, mul, toNumber, frac } from '../../score/fraction.ts';
import { measureAt } from '../../score/position.ts';
import { tempoInForce, tempoMarks } from '../../score/tempo.ts';
import { setsATempo, tempoOfWords } from '../../style/tempo-words.ts';
import { danceOf } from '../../style/dances.ts';
import { suggestedTempo } from '../../survey/tempo.ts';
import { timeActIn } from '../../style/terms/read-words.ts';
import type { Claim } from '../../markings/claim.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { valueWords } from '../../analysis/words.ts';
import { inARow, lengthOf, marked, quartersOf } from './page.ts';

/** The printed words of a claim stand where it says. */
const standsThere = ({ at, text }: Claim, { score }: Ground): boolean =>
  score.directions.some((d) => d.kind === 'words' && d.text === text && eq(d.start, at));

/** What is printed about time after a moment, in order: slower, faster, restored, the same. */
const actsAfter = ({ at }: Claim, { score }: Ground): string[] =>
  score.directions
    .filter((d) => lt(at, d.start))
    .sort((a, b) => cmp(a.start, b.start))
    .flatMap((d) => {
      if (d.kind === 'metronome') return ['restore'];
      if (d.kind !== 'words') return [];
      const act = timeActIn(d.text);
      return act ? [act.kind] : setsATempo(d.text) ? ['restore'] : [];
    });

/** What is said of time: words, fermatas, values that grow, free bars, tempi and their relations. */
export const OF_TIME = {
  'words stand': { needs: ['text'], words: ({ text }) => `“${text}”`, holds: standsThere },
  'does not say where it stops': {
    words: ({ text }) => `“${text}” does not say where it stops`,
    holds: (claim, ground) => standsThere(claim, ground) && !actsAfter(claim, ground).some((kind) => kind !== 'fast' && kind !== 'wait')
  },
  'never taken back': {
    words: ({ text }) => `“${text}” is never taken back`,
    holds: (claim, ground) => standsThere(claim, ground) && actsAfter(claim, ground).find((kind) => kind !== 'wait') !== 'restore'
  },
  'values grow': {
    needs: ['to', 'text'],
    words: ({ text }) => text!,
    holds: ({ at, to, part }, { page }) => {
      const starts = [
        ...new Set(
          page
            .within(part, at, to!)
            .filter((n) => !n.tie?.stop)
            .map((n) => toNumber(n.start))
        )
      ].sort((a, b) => a - b);
      const gaps = [...starts.slice(1), toNumber(to!)].map((s, k) => s - starts[k]);
      const last = gaps.at(-1) ?? 0;
      return gaps.length >= 3 && last > gaps[0] + 1e-9 && gaps.every((g, k) => k === 0 || g >= gaps[k - 1] - 1e-9);
    }
  },
  fermata: {
    words: ({ notes }, { page }) => {
      const quarters = quartersOf(page, page.notes(notes)![0]);
      return `a fermata on a note of ${Number(quarters.toFixed(2))} quarter${quarters === 1 ? '' : 's'}`;
    },
    holds: ({ notes }, { page }) => page.notes(notes)?.[0].marks?.some((m) => m.group === 'fermata') ?? false
  },
  'notes without a meter': {
    needs: ['count'],
    words: ({ count }) => `${count} notes without a meter`,
    holds: ({ part, at, count }, { score }) => {
      const bar = measureAt(score, at);
      const notes = score.notes.filter((n) => n.part === part && n.measure === bar.index && !n.rest && !n.grace && !n.chord);
      return !bar.time?.quarters && count! > 0 && count! <= notes.length;
    }
  },
  'values grow in the free bar': {
    words: () => 'the values grow at the end of the free bar',
    holds: ({ notes }, { page, score }) => {
      const all = page.notes(notes);
      if (!all || all.length !== 3 || score.measures[all[0].measure].time?.quarters || !inARow(page, all)) return false;
      const lengths = all.map((n) => quartersOf(page, n));
      return lengths[2] > lengths[0] && lengths[1] >= lengths[0] && lengths[2] >= lengths[1];
    }
  },
  'measured again': {
    words: () => 'measured again after a free bar',
    holds: ({ at }, { score }) => {
      const bar = measureAt(score, at);
      const before = score.measures[bar.index - 1];
      const said = (d: Ground['score']['directions'][number]): boolean =>
        d.kind === 'words' && d.measure === bar.index - 1 && timeActIn(d.text)?.kind === 'free';
      return Boolean(bar.time?.quarters) && before !== undefined && (!before.time?.quarters || score.directions.some(said));
    }
  },
  'tempo word': {
    needs: ['text'],
    words: ({ text }) => {
      const word = tempoOfWords(text!);
      return `“${word?.name ?? text}”, usually ${word?.low} to ${word?.high}`;
    },
    holds: ({ text }, { score }) =>
      tempoOfWords(text!) !== null && score.directions.some((d) => d.kind === 'words' && d.text === text) && !tempoMarks(score).length
  },
  'dance named': {
    needs: ['text'],
    words: ({ text }, { score }) => {
      const tempo = suggestedTempo(score);
      return `a ${text!.toLowerCase()}, usually ${tempo?.beats.low} to ${tempo?.beats.high} beats a minute`;
    },
    holds: ({ text }, { score }) => danceOf(score.title)?.name === text && suggestedTempo(score) !== null && !tempoMarks(score).length
  },
  'clear up to': {
    needs: ['count', 'text'],
    words: ({ notes, count, at, text }, { page, score }) =>
      `a detached note of ${valueWords(lengthOf(page, page.notes(notes)![0]))} with a share of ${text} is clear up to ${count!.toFixed(1)}; the page asks for ${Math.round(tempoInForce(score, at) ?? 0)}`,
    holds: ({ notes, count, at }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && marked(note, /^staccat/) && (tempoInForce(score, at) ?? 0) > count!;
    }
  },
  'tempo word without a number': {
    words: ({ text }) => `“${text}” without a number`,
    holds: (claim, ground) => standsThere(claim, ground) && !tempoMarks(ground.score).some((m) => m.printed && eq(m.start, claim.at))
  },
  'tempi related': {
    needs: ['count', 'text'],
    words: ({ at, text, count }, { score }) => {
      const [before, now] = tempiAround(score, at);
      return `${now} after ${before} is near ${text} (exactly ${count})`;
    },
    holds: ({ at, count }, { score }) => {
      const [before, now] = tempiAround(score, at);
      return before > 0 && now > 0 && Math.abs(now / count! - 1) < 0.07;
    }
  },
  'room for notes': {
    needs: ['count', 'text'],
    words: ({ notes, count, text }, { page, score }) => {
      const [note] = page.notes(notes)!;
      const seconds = (quartersOf(page, note) * 60) / (tempoInForce(score, note.start) ?? 60);
      return `${seconds.toFixed(2)} s leave room for ${count} note${count === 1 ? '' : 's'} at ${text} alternations a second`;
    },
    holds: ({ notes, count, text }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      const tempo = note && tempoInForce(score, note.start);
      if (!note || !tempo) return false;
      return marked(note, /^trill-mark$/) && Math.floor((2 * Number(text) * quartersOf(page, note) * 60) / tempo) === count;
    }
  },
  'slows to the letter': {
    words: () => 'the theme itself is in time',
    holds: ({ at, part }, { page, score }) => page.within(part, at, add(measureAt(score, at).start, measureAt(score, at).length)).length > 0
  },
  hemiola: {
    words: () => 'notes of two beats begin on one, three and two of the next bar: three groups of two across two bars',
    holds: ({ at, part }, { score, page }) => {
      const bar = measureAt(score, at);
      if (bar.time?.groups[0] !== 3) return false;
      const onsets = [0, 1, 2].map((k) => add(bar.start, mul(bar.length, frac(2 * k, 3))));
      // In the part itself, each for its two beats.
      const two = (2 / 3) * toNumber(bar.length);
      const entries = (time: (typeof onsets)[number]): boolean =>
        page.inMeasure(part, measureAt(score, time).index).some((n) => eq(n.start, time) && quartersOf(page, n) >= two - 1e-9);
      return onsets.every(entries);
    }
  },
  'accents moved': {
    needs: ['beside', 'text'],
    beat: true,
    words: ({ text }) => text!,
    holds: ({ at, beside }, { score }) => {
      // The same music on another place of its bar.
      const place = (time: typeof at): number => toNumber(time) - toNumber(measureAt(score, time).start);
      return beside !== undefined && Math.abs(place(at) - place(beside)) > 1e-9;
    }
  }
} satisfies Record<string, ClaimKind>;

/** The printed tempo before a moment and at it. */
function tempiAround(score: Ground['score'], at: Claim['at']): [before: number, now: number] {
  const marks = tempoMarks(score).filter((m) => m.printed);
  const middle = (m: (typeof marks)[number] | undefined): number => (m ? Math.round((m.low + m.high) / 2) : 0);
  return [middle(marks.findLast((m) => lt(m.start, at))), middle(marks.findLast((m) => lte(m.start, at)))];
}
