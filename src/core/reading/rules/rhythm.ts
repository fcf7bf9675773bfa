import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import type { RuleContext } from '../context.ts';
import { frac, mul, add, cmp } from '../../score/fraction.ts';
import { DOTTED } from '../../style/rule-weights.ts';
import { swingRatio } from '../../style/swing.ts';
import { about, firstAt, ofMoment, oncePerSection, quarters, tempoAt, term, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** A dotted note and the short one that fills its beat up: three to one, within one bar, the short one off the beat. Handbook 1.5. */
function isDottedFigure(c: RuleContext, long: Tone, short: Tone | undefined): boolean {
  if (!short || long.note.dots !== 1 || short.start !== long.end || short.note.measure !== long.note.measure) return false;
  return quarters(c, long) === 3 * quarters(c, short) && quarters(c, long) <= DOTTED.longest && levelAt(c.sounding, long.start) >= 1;
}

/** Rules for the exactness and the weight of rhythm. Handbook 1. */
export const RHYTHM: Rule[] = [
  {
    id: 'keep-the-dot-exact',
    area: 'rhythm',
    title: 'A dotted figure is three to one and must not soften to two to one',
    looksAt: 'Dotted figures in bars with triplets, where the school says “literal”.',
    proposes: 'Words at the first of each section.',
    periods: { classical: 0.6, romantic: 0.6, 'french-1900': 0.7, modern: 0.6 },
    sources: ['common'],
    find: (c) => {
      if (c.schools.dotting !== 'literal') return [];
      const triplets = new Set(c.score.notes.filter((n) => n.timeModification?.actual === 3).map((n) => n.measure));
      const dotted = c.line.filter(
        (t, k) =>
          isDottedFigure(c, t, c.line[k + 1]) && [t.note.measure - 1, t.note.measure, t.note.measure + 1].some((m) => triplets.has(m))
      );
      return oncePerSection(c, dotted, (t) => t.note.start).map((t) =>
        words('3 to 1', t, about('dotted beside triplets', [t, c.line[c.line.indexOf(t) + 1]]))
      );
    }
  },
  {
    id: 'sharpen-the-dots',
    area: 'rhythm',
    title: 'In slow and stately pieces the short note is later and shorter',
    looksAt: 'Dotted figures, where the school says “sharpened”.',
    proposes: 'Words at the first of each section.',
    periods: { baroque: 0.5, 'highland-pipes': 0.6 },
    sources: ['quantz', 'lmozart'],
    find: (c) => {
      if (c.schools.dotting !== 'sharpened') return [];
      const dotted = c.line.filter((t, k) => isDottedFigure(c, t, c.line[k + 1]));
      // A figure now and then makes no stately piece.
      const bars = new Set(dotted.map((t) => t.note.measure)).size;
      if (bars < DOTTED.bars * c.score.measures.length) return [];
      return oncePerSection(c, dotted, (t) => t.note.start).map((t) =>
        term('dots sharpened', t, about('dotted figure', [t, c.line[c.line.indexOf(t) + 1]]))
      );
    }
  },
  {
    id: 'unequal-notes',
    area: 'rhythm',
    title: 'Stepwise equal notes are played unequal',
    looksAt: 'Runs of four stepwise eighths or sixteenths, where the school says so.',
    proposes: 'The ratio, once at the beginning.',
    periods: { baroque: 0.5 },
    sources: ['quantz'],
    find: (c) => {
      const text = { mild: 'unequal, 3 to 2', full: 'unequal, 2 to 1' }[c.schools.inegales ?? ''];
      const at =
        text &&
        c.line.find(
          (t, k) =>
            [1, 2, 3].every(
              (n) =>
                c.line[k + n] && quarters(c, c.line[k + n]) === quarters(c, t) && Math.abs(c.line[k + n].midi - c.line[k + n - 1].midi) <= 2
            ) && quarters(c, t) <= 0.5
        );
      const from = at ? c.line.indexOf(at) : 0;
      return at ? [term(text, at, about('equal steps', c.line.slice(from, from + 4)))] : [];
    }
  },
  {
    id: 'swing-the-eighths',
    area: 'rhythm',
    title: 'Eighths swing',
    looksAt: 'Lines with eighths, in the swing profile.',
    proposes: 'The ratio of long to short: two to one, or by tempo.',
    periods: { swing: 0.9 },
    sources: ['fribergSundstrom'],
    find: (c) => {
      const at = c.line.find((t) => quarters(c, t) === 0.5);
      if (!at || !c.schools.swing || c.schools.swing === 'straight') return [];
      const tempo = tempoAt(c, at.note.start);
      const ratio = c.schools.swing === 'by-tempo' && tempo ? swingRatio(tempo) : 2;
      return [term(`swing ${Number(ratio.toFixed(1))} to 1`, at, about('eighths', at, tempo ? { count: Math.round(tempo) } : {}))];
    }
  },
  {
    id: 'lean-on-the-hemiola',
    area: 'rhythm',
    title: 'Let the hemiola be felt',
    looksAt: 'Two bars of three that fall into three groups of two.',
    proposes: 'A tenuto on each of the three groups.',
    periods: { baroque: 0.7, classical: 0.5, romantic: 0.45 },
    sources: ['common'],
    find: (c) =>
      c.details.rhythms
        .filter((r) => r.kind === 'hemiola')
        .flatMap((r) => {
          const bar = c.score.measures[r.measure].length;
          return [0, 1, 2].flatMap((k): Draft[] => {
            const at = add(r.start, mul(bar, frac(2 * k, 3)));
            const tone = firstAt(c, at);
            return tone && cmp(tone.note.start, at) === 0 && !tone.note.marks?.length
              ? [{ kind: 'articulation', value: 'tenuto', at: tone, fact: ofMoment('hemiola', r.start) }]
              : [];
          });
        })
  },
  {
    id: 'count-the-entry',
    area: 'rhythm',
    title: 'Count the entry after a rest',
    looksAt: 'Entries off the beat after a rest of a beat or more.',
    proposes: 'Words at the entry, once in each section.',
    periods: { baroque: 0.35, classical: 0.4, romantic: 0.4, 'french-1900': 0.5, modern: 0.5, swing: 0.4 },
    sources: ['common'],
    find: (c) => {
      const entries = c.line.filter(
        (t, k) => k > 0 && (t.start - c.line[k - 1].end) / c.sounding.ticksPerQuarter >= 1 && levelAt(c.sounding, t.start) < 1
      );
      return oncePerSection(c, entries, (t) => t.note.start).map((t) => words('count', t, about('entry off the beat', t)));
    }
  },
  {
    id: 'anchor-the-run',
    area: 'rhythm',
    title: 'Runs tend to rush: give the notes on the beats',
    looksAt: 'Eight or more equal quick notes in a row.',
    proposes: 'Words at the beginning of the run, once in each section.',
    periods: { baroque: 0.4, classical: 0.5, romantic: 0.5, 'french-1900': 0.5, modern: 0.4 },
    sources: ['common'],
    find: (c) => {
      const runs = c.line.filter((t, k) => {
        // In a free cadenza there are no beats to give.
        if (!c.score.measures[t.note.measure].time) return false;
        const equal = (n: number): boolean =>
          c.line[k + n] !== undefined && quarters(c, c.line[k + n]) === quarters(c, t) && c.line[k + n].start === c.line[k + n - 1].end;
        return quarters(c, t) <= 0.25 && (k === 0 || quarters(c, c.line[k - 1]) !== quarters(c, t)) && [1, 2, 3, 4, 5, 6, 7].every(equal);
      });
      return oncePerSection(c, runs, (t) => t.note.start).map((t) =>
        words('give the beats', t, about('quick run', c.line.slice(c.line.indexOf(t), c.line.indexOf(t) + 8)))
      );
    }
  },
  {
    id: 'mark-the-displaced-theme',
    area: 'rhythm',
    title: 'Mark a theme that returns on another beat',
    looksAt: 'The same music on another place of the bar.',
    proposes: 'Words that warn.',
    periods: { baroque: 0.5, classical: 0.55, romantic: 0.55, modern: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.details.rhythms
        .filter((r) => r.kind === 'displaced theme')
        .flatMap((r): Draft[] => {
          const tone = firstAt(c, r.start);
          return tone ? [words('accents moved', tone, ofMoment('accents moved', r.start, { text: r.evidence, beside: r.beside }))] : [];
        })
  }
];
