import { levelAt } from '../../analysis/texture.ts';
import { hasMark, oncePerSection, quarters, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

const TOUCH: Record<string, string> = {
  half: 'unmarked notes: half their value',
  detached: 'unmarked notes: about three quarters',
  full: 'unmarked notes: full'
};
const STACCATO: Record<string, string> = {
  separated: 'dots: separated, not short',
  half: 'dots: exactly half',
  'dense-short': 'dots: short and dense'
};

/** Rules for length, attack and weight of single notes. Handbook 6. */
export const ARTICULATION: Rule[] = [
  {
    id: 'length-of-unmarked-notes',
    area: 'articulation',
    title: 'Say how long unmarked notes are',
    looksAt: 'Lines with plain notes, neither slurred nor dotted nor held, of a quarter or shorter.',
    proposes: 'The share of the school, once at the beginning.',
    periods: { baroque: 0.6, classical: 0.5 },
    sources: ['cpebach', 'turk', 'clementi'],
    find: (c) => {
      const plain = c.line.find(
        (t, k) =>
          !t.note.marks?.length &&
          quarters(c, t) <= 1 &&
          c.line[k + 1] &&
          !c.slurred(t, c.line[k + 1]) &&
          (k === 0 || !c.slurred(c.line[k - 1], t))
      );
      const text = TOUCH[c.schools.touch ?? ''];
      return plain && text ? [words(text, plain, `${c.place(plain.note.start)}: notes without slur or sign`)] : [];
    }
  },
  {
    id: 'length-of-dots',
    area: 'articulation',
    title: 'Say what a dot asks',
    looksAt: 'Printed staccato dots.',
    proposes: 'The share of the school, at the first dot of each section.',
    periods: { classical: 0.5, romantic: 0.5, 'french-1900': 0.6, swing: 0.5, modern: 0.4 },
    sources: ['czerny', 'common'],
    find: (c) => {
      const text = STACCATO[c.schools.staccato ?? ''];
      return text
        ? oncePerSection(
            c,
            c.line.filter((t) => hasMark(t, /^staccato$/)),
            (t) => t.note.start
          ).map((t) => words(text, t, `${c.place(t.note.start)}: dots are printed`))
        : [];
    }
  },
  {
    id: 'lift-the-second-of-a-pair',
    area: 'articulation',
    title: 'The second of a slurred pair is lighter and shorter',
    looksAt: 'Slurs over two notes, where the school says so.',
    proposes: 'Words at the first pair of each section.',
    periods: { baroque: 0.6, classical: 0.6 },
    sources: ['lmozart', 'turk'],
    find: (c) => {
      if (c.schools['slur-pairs'] !== 'lift-second') return [];
      const pairs = c.line.filter(
        (t, k) =>
          c.line[k + 1] &&
          c.slurred(t, c.line[k + 1]) &&
          (k === 0 || !c.slurred(c.line[k - 1], t)) &&
          !(c.line[k + 2] && c.slurred(c.line[k + 1], c.line[k + 2]))
      );
      return oncePerSection(c, pairs, (t) => t.note.start).map((t) =>
        words('second note lighter', t, `${c.place(t.note.start)}: a slurred pair`)
      );
    }
  },
  {
    id: 'prepare-the-detached-notes',
    area: 'articulation',
    title: 'A long note before detached ones ends early enough to prepare them',
    looksAt: 'A note of a half or longer directly before staccato notes.',
    proposes: 'A comma after it.',
    periods: { classical: 0.5, romantic: 0.45, modern: 0.4, baroque: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        const later = c.line[k + 2];
        return next && later && next.start === t.end && quarters(c, t) >= 2 && hasMark(next, /^staccat/) && hasMark(later, /^staccat/)
          ? [{ kind: 'comma', value: 'comma', at: t, fact: `${c.place(t.note.start)}: a long note before detached ones` }]
          : [];
      })
  },
  {
    id: 'sustain-through-the-tie',
    area: 'articulation',
    title: 'A tied syncopation sounds through its tie',
    looksAt: 'Notes that begin on a weak place and are tied over a strong one.',
    proposes: 'Tenuto.',
    periods: { baroque: 0.5, classical: 0.5, romantic: 0.5, modern: 0.4, swing: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.line
        .filter((t) => t.note.tie?.start && levelAt(c.texture, t.start) < 2 && !t.note.marks?.length)
        .map((t) => ({
          kind: 'articulation' as const,
          value: 'tenuto',
          at: t,
          fact: `${c.place(t.note.start)}: tied over a stronger beat; it must not be cut`
        }))
  },
  {
    id: 'separate-the-leaps',
    area: 'articulation',
    title: 'Separate across leaps',
    looksAt: 'Leaps of a seventh and more between unslurred notes.',
    proposes: 'A detached first note.',
    periods: { baroque: 0.45 },
    sources: ['quantz', 'turk'],
    find: (c) =>
      c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        return next &&
          next.start === t.end &&
          Math.abs(next.midi - t.midi) >= 10 &&
          quarters(c, t) <= 1 &&
          !c.slurred(t, next) &&
          !t.note.marks?.length
          ? [
              {
                kind: 'articulation',
                value: 'staccato',
                at: t,
                fact: `${c.place(t.note.start)}: a leap ${next.midi > t.midi ? 'up' : 'down'}`
              }
            ]
          : [];
      })
  },
  {
    id: 'two-marks-two-sounds',
    area: 'articulation',
    title: 'Two different marks in one passage must sound different',
    looksAt: 'Bars in which dots and dashes, or dots and wedges, stand side by side.',
    proposes: 'Words with both shares.',
    periods: { classical: 0.5, romantic: 0.55, 'french-1900': 0.6, modern: 0.5 },
    sources: ['czerny', 'common'],
    find: (c) => {
      const bars = c.score.measures.filter((m) => {
        const names = new Set(c.line.filter((t) => t.note.measure === m.index).flatMap((t) => (t.note.marks ?? []).map((x) => x.name)));
        return ['staccato', 'tenuto', 'staccatissimo', 'detached-legato'].filter((n) => names.has(n)).length >= 2;
      });
      return oncePerSection(c, bars, (m) => m.start).flatMap((m): Draft[] => {
        const tone = c.line.find((t) => t.note.measure === m.index && t.note.marks?.length);
        return tone ? [words('dash full, dot half, wedge a quarter', tone, `${c.place(m.start)}: different marks stand side by side`)] : [];
      });
    }
  },
  {
    id: 'light-connecting-notes',
    area: 'articulation',
    title: 'Connecting notes are light',
    looksAt: 'Bars in which most of the quick notes only connect pillars, where the school says “light”.',
    proposes: 'Words at the first such bar of each section.',
    periods: { 'french-1900': 0.5, romantic: 0.35 },
    sources: ['common'],
    find: (c) => {
      if (c.schools['short-notes'] !== 'light') return [];
      const roles = new Map(c.details.roles.map((r) => [r.note, r.rank]));
      const bars = c.score.measures.filter((m) => {
        const quick = c.line.filter((t) => t.note.measure === m.index && quarters(c, t) <= 0.5);
        return quick.length >= 4 && quick.filter((t) => roles.get(t.note.id) === 'connecting').length >= 0.5 * quick.length;
      });
      return oncePerSection(c, bars, (m) => m.start).flatMap((m): Draft[] => {
        const tone = c.line.find((t) => t.note.measure === m.index);
        return tone
          ? [words('connecting notes light', tone, `${c.place(m.start)}: most of the quick notes lead from one pillar to the next`)]
          : [];
      });
    }
  }
];
