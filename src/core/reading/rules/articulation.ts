import { LEAP_APART, SIMILE } from '../../style/rule-weights.ts';
import { levelAt } from '../../analysis/sounding-score.ts';
import { about, hasMark, oncePerSection, parting, quarters, term, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** The field's words, and the share of the school that they stand for. Handbook 6.1. */
const TOUCH: Record<string, readonly [word: string, share: string]> = {
  half: ['non legato', 'half their value'],
  detached: ['non legato', 'about three quarters of their value'],
  full: ['legato', 'their full value']
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
    needs: ['keys'],
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
      const touch = TOUCH[c.schools.touch ?? ''];
      return plain && touch ? [term(touch[0], plain, about('unmarked notes', plain, { text: touch[1] }))] : [];
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
          ).map((t) => words(text, t, about('dots', t)))
        : [];
    }
  },
  {
    id: 'detached-throughout',
    area: 'articulation',
    title: 'Dots that stop in the middle of a figure go on',
    looksAt: 'Four dotted notes of one value, after which the same values go on unslurred for four notes without a sign.',
    proposes: '“sempre staccato” where the dots stop, once, and not a dot on every note.',
    periods: { classical: 0.55, romantic: 0.5, 'french-1900': 0.45, modern: 0.4 },
    sources: ['common'],
    find: (c) => {
      const k = c.line.findIndex((t, at) => {
        const eight = c.line.slice(at - SIMILE, at + SIMILE);
        if (at < SIMILE || eight.length < 2 * SIMILE || t.note.measure === c.line[at - 1].note.measure) return false;
        const equal = eight.every((x, n) => quarters(c, x) === quarters(c, t) && (n === 0 || x.start === eight[n - 1].end));
        const [dotted, plain] = [eight.slice(0, SIMILE), eight.slice(SIMILE)];
        return (
          equal &&
          quarters(c, t) <= 1 &&
          dotted.every((x) => hasMark(x, /^staccato$/)) &&
          plain.every((x, n) => !x.note.marks?.length && (n === 0 || !c.slurred(plain[n - 1], x)))
        );
      });
      return k < 0
        ? []
        : [term('sempre staccato', c.line[k], about('dots stop', c.line.slice(k - SIMILE, k + SIMILE), { at: c.line[k].note.start }))];
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
      return oncePerSection(c, pairs, (t) => t.note.start).map((t) => words('second note lighter', t, about('slurred pair', [t, t.next!])));
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
          ? [{ ...parting(c), at: t, fact: about('long before detached', [t, next]) }]
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
        .filter((t) => t.note.tie?.start && levelAt(c.sounding, t.start) < 2 && !t.note.marks?.length)
        .map((t) => ({
          kind: 'articulation' as const,
          value: 'tenuto',
          at: t,
          fact: about('tied over', t)
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
          Math.abs(next.midi - t.midi) >= LEAP_APART &&
          quarters(c, t) <= 1 &&
          !c.slurred(t, next) &&
          !t.note.marks?.length
          ? [
              {
                kind: 'articulation',
                value: 'staccato',
                at: t,
                fact: about('leap', [t, next])
              }
            ]
          : [];
      })
  },
  {
    id: 'equal-notes-equal',
    area: 'articulation',
    title: 'Equal notes stay equal in length and loudness',
    looksAt: 'Four equal notes with the same mark in one bar.',
    proposes: 'Words at the last of them, once in each section: as long as the others.',
    periods: { classical: 0.4, romantic: 0.4, 'french-1900': 0.5, modern: 0.45 },
    sources: ['common'],
    find: (c) => {
      const groups = c.line.flatMap((t, k) => {
        const four = c.line.slice(k, k + 4);
        const name = t.note.marks?.find((m) => m.group === 'articulation')?.name;
        const alike =
          four.length === 4 &&
          name !== undefined &&
          four.every(
            (x) => x.note.measure === t.note.measure && quarters(c, x) === quarters(c, t) && x.note.marks?.some((m) => m.name === name)
          );
        return alike && quarters(c, t) >= 1 ? [{ four, name }] : [];
      });
      return oncePerSection(c, groups, (g) => g.four[0].note.start).map((g) =>
        words('as long as the others', g.four[3], about('equal marks', g.four, { text: g.name }))
      );
    }
  },
  {
    id: 'keep-the-touch-with-a-second-voice',
    area: 'articulation',
    title: 'Repeated articulation stays when another voice joins',
    looksAt: 'Detached notes in one hand that go on while the other hand begins.',
    proposes: 'Words where the second hand enters.',
    periods: { classical: 0.45, romantic: 0.45, baroque: 0.4 },
    needs: ['keys'],
    sources: ['common'],
    find: (c) => {
      const entries = c.score.measures.slice(1).flatMap((m) => {
        const of = (measure: number, staff: number) => c.tonesIn(measure).filter((t) => t.note.staff === staff);
        return [1, 2].flatMap((staff) => {
          const now = of(m.index, staff);
          const dotted =
            now.length >= 2 && now.every((t) => hasMark(t, /^staccat/)) && of(m.index - 1, staff).some((t) => hasMark(t, /^staccat/));
          const other = of(m.index, 3 - staff);
          return dotted && other.length && !of(m.index - 1, 3 - staff).length ? [{ tone: other[0], start: m.start }] : [];
        });
      });
      return oncePerSection(c, entries, (e) => e.start).map((e) => words('keep the touch', e.tone, about('other hand joins', e.tone)));
    }
  },
  {
    id: 'let-the-accent-decay',
    area: 'articulation',
    title: 'An accent decays after it begins',
    looksAt: 'Accents on notes of a half and longer.',
    proposes: 'Words at the first of each section: begin, then give way.',
    periods: { classical: 0.45, romantic: 0.5, 'french-1900': 0.5, modern: 0.4 },
    needs: ['breathes', 'bows'],
    sources: ['common'],
    find: (c) =>
      oncePerSection(
        c,
        c.line.filter((t) => hasMark(t, /accent/) && quarters(c, t) >= 2),
        (t) => t.note.start
      ).map((t) => words('then give way', t, about('held accent', t)))
  },
  {
    id: 'join-across-the-leap',
    area: 'articulation',
    title: 'A leap in a sung line is joined',
    looksAt: 'Leaps of an octave and more under a slur.',
    proposes: 'Words at the lower note: carry the sound over.',
    periods: { romantic: 0.45, 'french-1900': 0.55 },
    sources: ['common'],
    find: (c) =>
      oncePerSection(
        c,
        c.line.filter((t, k) => c.line[k + 1] && c.slurred(t, c.line[k + 1]) && Math.abs(c.line[k + 1].midi - t.midi) >= 12),
        (t) => t.note.start
      ).map((t) => words('carry over', t, about('wide under a slur', [t, c.line[c.line.indexOf(t) + 1]])))
  },
  {
    id: 'swing-the-articulation',
    area: 'articulation',
    title: 'In swing the last note of a line is cut, quarters are short unless marked',
    looksAt: 'A line that ends with an eighth off the beat before a rest.',
    proposes: 'An accent on it, and off at once.',
    periods: { swing: 0.6 },
    sources: ['common'],
    find: (c) =>
      c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        const last = !next || next.start > t.end;
        return last && quarters(c, t) <= 0.5 && levelAt(c.sounding, t.start) < 1 && !hasMark(t, /accent/)
          ? [
              {
                kind: 'accent',
                value: 'strong-accent',
                at: t,
                fact: about('ends off the beat', t)
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
        const names = new Set(c.lineIn(m.index).flatMap((t) => (t.note.marks ?? []).map((x) => x.name)));
        return ['staccato', 'tenuto', 'staccatissimo', 'detached-legato'].filter((n) => names.has(n)).length >= 2;
      });
      return oncePerSection(c, bars, (m) => m.start).flatMap((m): Draft[] => {
        const tone = c.lineIn(m.index).find((t) => t.note.marks?.length);
        return tone ? [words('dash full, dot half, wedge a quarter', tone, about('different marks', tone))] : [];
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
        const quick = c.lineIn(m.index).filter((t) => quarters(c, t) <= 0.5);
        return quick.length >= 4 && quick.filter((t) => roles.get(t.note.id) === 'connecting').length >= 0.5 * quick.length;
      });
      return oncePerSection(c, bars, (m) => m.start).flatMap((m): Draft[] => {
        const tone = c.lineIn(m.index)[0];
        return tone ? [words('connecting notes light', tone, about('connecting notes', tone))] : [];
      });
    }
  }
];
