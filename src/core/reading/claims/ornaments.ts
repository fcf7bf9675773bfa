import { lt } from '../../score/fraction.ts';
import { neighbourOf } from '../../analysis/neighbours.ts';
import type { ClaimKind } from './claim.ts';
import { heightOf, inARow, marked, pitchOf, quartersOf } from './page.ts';

/** What is said of printed and written-out ornaments. */
export const OF_ORNAMENTS = {
  trill: {
    words: () => 'a trill',
    holds: ({ notes }, { page }) => page.notes(notes)?.every((n) => marked(n, /^trill-mark$/)) ?? false
  },
  'trill leads up': {
    words: () => 'the trill leads a step up',
    holds: ({ notes }, { page }) => {
      const [note, next] = page.notes(notes) ?? [];
      return next !== undefined && marked(note, /^trill-mark$/) && heightOf(next) - heightOf(note) === 1 && page.graces(next).length === 0;
    }
  },
  'small note before': {
    words: ({ notes }, { page }) => `a small note before a ${page.notes(notes)![0].dots ? 'dotted' : 'plain'} one`,
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && page.graces(note).length === 1;
    }
  },
  'small notes': {
    words: ({ text }) => `small notes${text ? ` ${text}` : ''}`,
    holds: ({ notes, text }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      const graces = note ? page.graces(note) : [];
      return graces.length > 0 && (text !== 'with a stroke' || graces.some((g) => g.grace!.slash));
    }
  },
  'turn on a long note': {
    words: ({ notes }, { page }) => `a turn on a ${page.notes(notes)![0].dots ? 'dotted' : 'long'} note`,
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && marked(note, /^turn$/) && (Boolean(note.dots) || quartersOf(page, note) >= 2);
    }
  },
  'third between': {
    words: () => 'a third between two notes, in a repeated strain',
    holds: ({ notes }, { page }) => {
      const [a, b] = page.notes(notes) ?? [];
      return b !== undefined && inARow(page, [a, b]) && Math.abs(heightOf(b) - heightOf(a)) === 2;
    }
  },
  'neighbour altered': {
    words: () => 'the key of the place alters a neighbour of the ornamented note',
    holds: ({ notes }, { page, score, facts }) => {
      const [note] = page.notes(notes) ?? [];
      return note !== undefined && marked(note, /turn|mordent/) && [1, -1].some((by) => neighbourOf(score, facts, note, by)?.altered);
    }
  },
  circling: {
    beat: true,
    words: () => 'quick notes circle around one',
    holds: ({ notes }, { page }) => {
      const all = page.notes(notes);
      return all?.length === 5 && inARow(page, all) && all.every((n) => Math.abs(heightOf(n) - heightOf(all[0])) <= 1);
    }
  },
  'carried accidental': {
    needs: ['text'],
    words: ({ text }) => text!,
    holds: ({ notes }, { page }) => {
      const [note] = page.notes(notes) ?? [];
      if (!note?.pitch || note.accidental) return false;
      // An earlier sign in the bar, on the same line of the staff, holds for it.
      return page
        .inMeasure(note.part, note.measure)
        .some(
          (n) => lt(n.start, note.start) && n.accidental && n.pitch?.step === note.pitch!.step && pitchOf(n) % 12 === pitchOf(note) % 12
        );
    }
  }
} satisfies Record<string, ClaimKind>;
