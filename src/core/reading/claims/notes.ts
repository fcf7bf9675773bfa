import { cmp, eq, lt, toNumber } from '../../score/fraction.ts';
import { beatOfMeter } from '../../score/meter.ts';
import { measureAt } from '../../score/position.ts';
import { intervalBetween, intervalName } from '../../score/pitch.ts';
import { intervalWords } from '../../analysis/words.ts';
import { DOTTED, LEAP_APART } from '../../style/rule-weights.ts';
import type { ClaimKind, Ground } from './claim.ts';
import { heightOf, inARow, levelCrossed, marked, pitchOf, placeLevel, quartersOf, silentAfter, slurOver } from './page.ts';

const DETACHED = /^staccat/;

/** A dotted note on a beat and the short one that fills its beat up, three to one. Handbook 1.5. */
function isDotted(notes: string[] | undefined, { page, score }: Ground): boolean {
  const [long, short] = page.notes(notes) ?? [];
  if (!short || long.dots !== 1 || !inARow(page, [long, short]) || long.measure !== short.measure) return false;
  return quartersOf(page, long) === 3 * quartersOf(page, short) && quartersOf(page, long) <= DOTTED.longest && placeLevel(score, long) >= 1;
}

/** What is said of single notes and their neighbours: marks, lengths, leaps, places in the bar. */
export const OF_NOTES = {
  'unmarked notes': {
    needs: ['text'],
    words: ({ text }) => `notes without slur or sign last ${text}`,
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && !note.marks?.length;
    }
  },
  dots: {
    words: () => 'dots are printed',
    holds: ({ notes }, { page }) => page.notes(notes)?.every((n) => marked(n, /^staccato$/)) ?? false
  },
  'dots stop': {
    words: () => 'the figure goes on, and its dots stop',
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      if (!all || all.length < 4 || !inARow(page, all)) return false;
      const half = all.length / 2;
      const equal = all.every((n) => quartersOf(page, n) === quartersOf(page, all[0]));
      return equal && all.every((n, k) => marked(n, /^staccato$/) === k < half);
    }
  },
  'slurred pair': {
    words: () => 'a slurred pair',
    holds: ({ notes }, { page, score }) => {
      const [a, b] = page.notes(notes) ?? [];
      return b !== undefined && inARow(page, [a, b]) && slurOver(score, page, a, b);
    }
  },
  'long before detached': {
    words: () => 'a long note before detached ones',
    holds: ({ notes }, { page }) => {
      const [long, next] = page.notes(notes) ?? [];
      return next !== undefined && quartersOf(page, long) >= 2 && inARow(page, [long, next]) && marked(next, DETACHED);
    }
  },
  'tied over': {
    words: () => 'tied over a stronger beat; it must not be cut',
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note?.tie?.start === true && levelCrossed(score, page, note) > placeLevel(score, note);
    }
  },
  leap: {
    words: ({ notes }, { page }) => {
      const [a, b] = page.notes(notes)!;
      const up = pitchOf(b) > pitchOf(a);
      const size = intervalWords(intervalName(up ? intervalBetween(a.pitch!, b.pitch!) : intervalBetween(b.pitch!, a.pitch!)));
      return `a leap of ${size.replace(/ (higher|lower)$/, '')} ${up ? 'up' : 'down'}`;
    },
    holds: ({ notes }, { page }) => {
      const [a, b] = page.notes(notes) ?? [];
      return Boolean(a?.pitch && b?.pitch) && inARow(page, [a, b]) && Math.abs(pitchOf(b) - pitchOf(a)) >= LEAP_APART;
    }
  },
  'equal marks': {
    needs: ['text'],
    words: ({ text }) => `four equal notes, each ${text}`,
    holds: ({ notes, text }, { page }) => {
      const all = page.notes(notes);
      return (
        all?.length === 4 && all.every((n) => n.marks?.some((m) => m.name === text) && quartersOf(page, n) === quartersOf(page, all[0]))
      );
    }
  },
  'other hand joins': {
    words: () => 'the other hand joins the detached notes',
    holds: ({ notes, part }, { page }) => {
      const [entry] = page.notes(notes) ?? [];
      if (!entry) return false;
      const before = page.inMeasure(part, entry.measure - 1);
      const now = page.inMeasure(part, entry.measure).filter((n) => n.staff !== entry.staff);
      return before.every((n) => n.staff !== entry.staff) && now.length > 0 && now.every((n) => n.chord || marked(n, DETACHED));
    }
  },
  'held accent': {
    words: () => 'an accent on a held note',
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && marked(note, /accent/) && quartersOf(page, note) >= 2;
    }
  },
  'lone accent': {
    beat: true,
    words: () => 'an accent between plain notes',
    holds: ({ notes }, { page }) => {
      const [before, note, after] = page.notes(notes) ?? [];
      return after !== undefined && marked(note, /accent/) && !marked(before, /accent/) && !marked(after, /accent/);
    }
  },
  'wide under a slur': {
    words: () => 'a leap of an octave or more under a slur',
    holds: ({ notes }, { page, score }) => {
      const [a, b] = page.notes(notes) ?? [];
      return b !== undefined && Math.abs(pitchOf(b) - pitchOf(a)) >= 12 && slurOver(score, page, a, b);
    }
  },
  'ends off the beat': {
    beat: true,
    words: () => 'the line ends off the beat before a rest',
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && placeLevel(score, note) < 1 && silentAfter(page, note);
    }
  },
  'different marks': {
    words: () => 'different marks stand side by side',
    holds: ({ notes, part }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      if (!note) return false;
      const names = page.inMeasure(part, note.measure).flatMap((n) => (n.marks ?? []).map((m) => m.name));
      return new Set(names.filter((n) => /^(staccato|tenuto|staccatissimo|detached-legato)$/.test(n))).size >= 2;
    }
  },
  'connecting notes': {
    words: () => 'most of the quick notes lead from one pillar to the next',
    holds: ({ notes, part }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && page.inMeasure(part, note.measure).filter((n) => toNumber(n.duration) <= 0.5).length >= 4;
    }
  },
  'repeated notes': {
    needs: ['count'],
    beat: true,
    words: ({ count }) => `${count} times the same note, then another`,
    holds: ({ notes, count }, { page }) => {
      const all = page.notes(notes);
      if (!all || all.length < 2 || all.length !== count! + 1) return false;
      const same = all.slice(0, -1);
      return same.every((n) => pitchOf(n) === pitchOf(same[0])) && pitchOf(all.at(-1)!) !== pitchOf(same[0]) && inARow(page, all);
    }
  },
  'notes over the bar line': {
    beat: true,
    words: () => 'several notes lead over the bar line',
    holds: ({ notes }, { page, score }) => {
      const all = page.notes(notes);
      return (
        all !== null && all.length >= 3 && placeLevel(score, all.at(-1)!) === 3 && all.slice(0, -1).every((n) => placeLevel(score, n) < 3)
      );
    }
  },
  'stepwise line': {
    beat: true,
    words: ({ notes }) => `${notes!.length} notes in one stepwise line`,
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      if (!all || all.length < 3 || !inARow(page, all)) return false;
      const way = Math.sign(heightOf(all[1]) - heightOf(all[0]));
      // A chromatic step may stay on its line of the staff.
      return all.slice(1).every((n, k) => {
        const by = pitchOf(n) - pitchOf(all[k]);
        return Math.sign(by) === (way || Math.sign(by)) && Math.abs(by) <= 2 && Math.abs(heightOf(n) - heightOf(all[k])) <= 1;
      });
    }
  },
  'dotted beside triplets': {
    words: () => 'a dotted figure beside triplets',
    holds: ({ notes }, ground) => {
      const [note] = ground.page.notes(notes) ?? [];
      return (
        isDotted(notes, ground) &&
        ground.score.notes.some((n) => Math.abs(n.measure - note.measure) <= 1 && n.timeModification?.actual === 3)
      );
    }
  },
  'dotted figure': {
    words: () => 'a dotted figure',
    holds: ({ notes }, ground) => isDotted(notes, ground)
  },
  'equal steps': {
    words: () => 'equal notes in steps',
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      return (
        all?.length === 4 &&
        inARow(page, all) &&
        all.slice(1).every((n, k) => Math.abs(pitchOf(n) - pitchOf(all[k])) <= 2 && eq(n.duration, all[k].duration))
      );
    }
  },
  eighths: {
    words: ({ count }) => `eighths${count ? ` at ${count} a minute` : ''}`,
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && quartersOf(page, note) === 0.5;
    }
  },
  'entry off the beat': {
    beat: true,
    words: () => 'an entry off the beat after a rest',
    holds: ({ notes, part }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      if (!note || placeLevel(score, note) > 0) return false;
      const { beat } = beatOfMeter(score.measures[note.measure]);
      const rest = toNumber(note.start) - Math.min(1, toNumber(beat));
      return !page
        .inMeasure(part, note.measure)
        .some((n) => n.staff === note.staff && toNumber(page.end(n)) > rest && lt(n.start, note.start));
    }
  },
  'quick run': {
    words: () => 'a run of equal quick notes',
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      return all !== null && all.length >= 8 && inARow(page, all) && all.every((n) => quartersOf(page, n) === quartersOf(page, all[0]));
    }
  },
  syncopation: {
    beat: true,
    words: ({ notes }, { page, score }) =>
      `the note enters ${placeLevel(score, page.notes(notes)![0]) >= 1 ? 'on a weak beat' : 'off the beat'} and holds across a stronger one`,
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && placeLevel(score, note) < 2 && levelCrossed(score, page, note) > placeLevel(score, note);
    }
  },
  'long second beat': {
    needs: ['count', 'text'],
    words: ({ count, text }) => `a long second beat, as in ${count} of ${text} bars`,
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      const beat = note ? beatOfMeter(score.measures[note.measure]).beat : null;
      return note !== undefined && cmp(note.onset, beat!) === 0 && quartersOf(page, note) >= 1.5 * toNumber(beat!);
    }
  },
  'long before a rest': {
    words: ({ notes }, { page }) => {
      const [note] = page.notes(notes)!;
      return `a note of ${quartersOf(page, note)} quarters before a rest`;
    },
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && quartersOf(page, note) >= 3 && silentAfter(page, note);
    }
  },
  'longer than before': {
    words: () => 'the phrase comes to rest on a longer note',
    holds: ({ notes }, { page }) => {
      const [before, last] = page.notes(notes) ?? [];
      return last !== undefined && quartersOf(page, last) > quartersOf(page, before);
    }
  },
  'long on the downbeat': {
    words: () => 'a long note on the downbeat',
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && placeLevel(score, note) === 3 && quartersOf(page, note) >= 1;
    }
  },
  'plain quarter': {
    words: () => 'a quarter on the beat without a sign',
    holds: ({ notes }, { page, score }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && quartersOf(page, note) === 1 && placeLevel(score, note) >= 1 && !note.marks?.length;
    }
  },
  'busier bar': {
    needs: ['count'],
    words: ({ count }) => `${count} strokes, more than in the bars around it`,
    holds: ({ at, part, count }, { page, score }) => {
      const { index } = measureAt(score, at);
      const [before, now, after] = [-1, 0, 1].map((by) => page.inMeasure(part, index + by).length);
      return now === count && now > before && now > after;
    }
  },
  'slur ends on the dissonance': {
    beat: true,
    words: () => 'the slur ends on the dissonance, before its resolution',
    holds: ({ notes }, { page, score }) => {
      const [note, next] = page.notes(notes) ?? [];
      return (
        next !== undefined &&
        inARow(page, [note, next]) &&
        Math.abs(heightOf(next) - heightOf(note)) === 1 &&
        score.slurs.some((s) => s.kind === 'slur' && s.to === note.id) &&
        !slurOver(score, page, note, next)
      );
    }
  }
} satisfies Record<string, ClaimKind>;
