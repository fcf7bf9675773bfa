import type { Tone } from '../../analysis/sounding-score.ts';
import { add, frac, fromNumber, lt, lte, toNumber } from '../../score/fraction.ts';
import { midi } from '../../score/pitch.ts';
import { dynamicAt, dynamicStep } from '../../style/dynamics.ts';
import { levelPrinted } from './levels.ts';
import { ACCOMPANIMENT } from '../../style/rule-weights.ts';
import { about, firstAt, ofMoment, oncePerSection, quarters, term, toneOf, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** Broken or repeated chords: many notes that seldom move by step, in a rhythm other than the tune's. */
function accompanies(lower: readonly Tone[], upper: readonly Tone[]): boolean {
  const onsets = [...new Set(lower.map((t) => t.start))].sort((a, b) => a - b);
  if (onsets.length < ACCOMPANIMENT.onsets || lower.some((t) => t.note.lyrics)) return false;
  const tops = onsets.map((at) => Math.max(...lower.filter((t) => t.start === at).map((t) => t.midi)));
  const steps = tops.slice(1).filter((m, k) => Math.abs(m - tops[k]) > 0 && Math.abs(m - tops[k]) <= 2).length;
  const own = new Set(upper.map((t) => t.start));
  const together = onsets.filter((at) => own.has(at)).length;
  return steps <= ACCOMPANIMENT.steps * (onsets.length - 1) && !(together === onsets.length && own.size === onsets.length);
}

/** Rules that shape loudness from repetition, line, register and texture. */
export const SHAPE: Rule[] = [
  {
    id: 'third-time-different',
    area: 'dynamics',
    title: 'The third time is different',
    looksAt: 'A bar or more that comes three times in a row.',
    proposes: 'By school: another level the third time (two questions and an answer), or growth over all three.',
    periods: { baroque: 0.55, classical: 0.6, romantic: 0.6, modern: 0.3 },
    sources: ['common'],
    find: (c) =>
      c.schools['third-time'] === 'same'
        ? []
        : c.details.gestures
            .filter((g) => g.kind === 'three times')
            .flatMap((g): Draft[] => {
              const length = (toNumber(g.end) - toNumber(g.start)) / 3;
              const third = firstAt(c, add(g.start, fromNumber(2 * length)));
              if (!third || !c.hasTune(third) || levelPrinted(c, third.note.start, third.note.start)) return [];
              const level = c.level(g.start)?.step ?? 5;
              const up = c.schools['third-time'] === 'growing';
              return [
                {
                  kind: 'dynamic',
                  value: dynamicAt(Math.max(2, Math.min(8, level + (up ? 2 : 1)))),
                  at: third,
                  fact: ofMoment('three times', g.start, { to: g.end, text: g.evidence })
                }
              ];
            })
  },
  {
    id: 'lead-the-chromatic-line',
    area: 'dynamics',
    title: 'Lead chromatic steps through',
    looksAt: 'Four semitones and more one way in the line, without a hairpin.',
    proposes: 'A crescendo over the line where it rises, a diminuendo where it falls.',
    periods: { classical: 0.5, romantic: 0.65, baroque: 0.4 },
    sources: ['czerny', 'common'],
    find: (c) =>
      c.details.lines
        .filter((l) => l.kind === 'chromatic' && l.where === 'line')
        .flatMap((l): Draft[] => {
          const from = toneOf(c, l.notes[0]);
          const to = toneOf(c, l.notes[l.notes.length - 1]);
          if (!from || !to || c.hairpinIn(from.note.start, to.note.start)) return [];
          const end = add(to.note.start, frac(to.end - to.start, c.sounding.ticksPerQuarter));
          return [
            {
              kind: 'hairpin',
              value: l.direction === 'up' ? 'crescendo' : 'diminuendo',
              at: from,
              to: end,
              fact: { what: 'chromatic line', at: from.note.start, notes: l.notes }
            }
          ];
        })
  },
  {
    id: 'one-peak',
    area: 'dynamics',
    title: 'One peak for the whole',
    looksAt: 'The highest note of the line, where it comes once, late enough to be a goal, and in the loudest bar of the page.',
    proposes: 'Words that name the peak, so that everything else stays below it.',
    periods: { romantic: 0.5, classical: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.details.gestures
        .filter(
          (g) =>
            g.kind === 'highest note' &&
            g.evidence.endsWith(', once') &&
            toNumber(g.start) > 0.4 * toNumber(c.score.measures[c.score.measures.length - 1].start)
        )
        .flatMap((g): Draft[] => {
          const tone = firstAt(c, g.start);
          return tone && c.hasTune(tone) && c.peak() === tone.note.measure && tone.midi === Math.max(...c.line.map((t) => t.midi))
            ? [words('peak', tone, about('highest note', tone))]
            : [];
        })
  },
  {
    id: 'accompaniment-below',
    area: 'dynamics',
    title: 'The accompaniment stays a step or two below',
    looksAt: 'Two-staff parts whose lower staff moves in broken or repeated chords.',
    proposes: 'Words at the first bar of each section: the lower staff lighter.',
    periods: { classical: 0.5, romantic: 0.45 },
    needs: ['keys'],
    sources: ['common'],
    find: (c) => {
      const bars = c.score.measures.filter((m) => {
        const lower = c.tonesIn(m.index).filter((t) => t.note.staff === 2 && !t.note.grace);
        const upper = c.lineIn(m.index).filter((t) => t.note.staff === 1);
        return upper.length > 0 && accompanies(lower, upper);
      });
      const accompanied = new Set(bars.map((m) => m.index));
      // In most of a section's bars: two bars of it are an episode.
      const most = bars.filter((m) => {
        const section = c.facts.sections.find((s) => lte(s.start, m.start) && lt(m.start, s.end));
        const all = c.score.measures.filter((x) => section && lte(section.start, x.start) && lt(x.start, section.end));
        return all.filter((x) => accompanied.has(x.index)).length >= ACCOMPANIMENT.bars * all.length;
      });
      return oncePerSection(c, most, (m) => m.start).map((m) =>
        term('left hand lighter', m.start, ofMoment('lower staff accompanies', m.start), { staff: 2 })
      );
    }
  },
  {
    id: 'bring-out-the-lower-line',
    area: 'dynamics',
    title: 'Bring out the tune where it lies below',
    looksAt: 'Bars in which the lower staff sings under repeated chords.',
    proposes: 'Words at the first of them.',
    periods: { classical: 0.6, romantic: 0.6 },
    needs: ['keys'],
    sources: ['common'],
    find: (c) =>
      oncePerSection(
        c,
        c.details.gestures.filter((g) => g.kind === 'melody below'),
        (g) => g.start
      ).map((g) => term('left hand sings', g.start, ofMoment('tune below', g.start), { staff: 2 }))
  },
  {
    id: 'all-the-way-to-the-subito',
    area: 'dynamics',
    title: 'A rise up to a subito piano goes all the way to it',
    looksAt: 'A printed crescendo whose end is marked softer than its beginning.',
    proposes: 'Words: no easing before the softer mark.',
    periods: { classical: 0.7, romantic: 0.65, modern: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.score.hairpins
        .filter((h) => h.part === c.part && h.kind === 'crescendo')
        .flatMap((h): Draft[] => {
          const before = c.level(h.start);
          const after = c.levels.find((l) => l.part === c.part && lte(h.end, l.start) && toNumber(l.start) - toNumber(h.end) <= 1);
          const tone = firstAt(c, h.start);
          return before && after && after.step <= before.step && tone
            ? [words('to the very end', tone, ofMoment('suddenly softer', after.start, { beside: h.start }))]
            : [];
        })
  },
  {
    id: 'sforzando-in-context',
    area: 'dynamics',
    title: 'A sforzando is a step above what is in force',
    looksAt: 'Printed sf, sfz and fz within p or softer, where the school says “in context”.',
    proposes: 'Words: a sting within the soft level.',
    periods: { classical: 0.55, romantic: 0.45 },
    sources: ['czerny'],
    find: (c) =>
      c.schools.sforzando !== 'in-context'
        ? []
        : c.score.directions.flatMap((d): Draft[] => {
            if (d.kind !== 'dynamic' || d.part !== c.part || !/^(sf|sfz|fz|rf|rfz)$/.test(d.value)) return [];
            const level = c.level(d.start);
            const tone = firstAt(c, d.start);
            return level && level.step <= 3 && tone
              ? [words(`within ${level.sign}`, tone, ofMoment('sforzando within', d.start, { text: d.value }))]
              : [];
          })
  },
  {
    id: 'let-the-low-register-speak',
    area: 'dynamics',
    title: 'What speaks weakly is not marked too soft',
    looksAt: 'pp or softer over notes in the lowest fifth of a wind instrument’s range.',
    proposes: 'One step louder.',
    periods: { baroque: 0.4, classical: 0.5, romantic: 0.5, modern: 0.4 },
    needs: ['breathes'],
    sources: ['patterson', 'common'],
    find: (c) => {
      const { range, name } = c.instrument;
      if (!range) return [];
      const low = midi(range.low) + 7;
      return oncePerSection(
        c,
        c.line.filter((t) => t.midi <= low && quarters(c, t) >= 1 && (c.level(t.note.start)?.step ?? 9) <= (dynamicStep('pp') ?? 2)),
        (t) => t.note.start
      ).map((t) => words('let it speak', t, about('speaks weakly', t, { text: name })));
    }
  }
];
