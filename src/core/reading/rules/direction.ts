import { REPETITION } from '../../style/rule-weights.ts';
import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import { add, frac, lt, lte } from '../../score/fraction.ts';
import { midi } from '../../score/pitch.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { about, firstAt, hasMark, ofMoment, oncePerSection, quarters, says, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** Rules that say where loudness is going: repeated notes, upbeats, terraces, growth from one hairpin to the next. Handbook 5. */
export const DIRECTION: Rule[] = [
  {
    id: 'repeated-notes-go-somewhere',
    area: 'dynamics',
    title: 'Repeated notes have a direction',
    looksAt: 'Four notes and more of one pitch before another one.',
    proposes: 'A crescendo to the note that follows them.',
    periods: { classical: 0.45, romantic: 0.5, 'french-1900': 0.5, modern: 0.35 },
    sources: ['common'],
    find: (c) =>
      c.line.flatMap((t, k): Draft[] => {
        if (c.line[k - 1]?.midi === t.midi) return [];
        let end = k;
        while (c.line[end + 1]?.midi === t.midi && c.line[end + 1].start === c.line[end].end) end++;
        const goal = c.line[end + 1];
        if (
          end - k + 1 < REPETITION ||
          !c.hasTune(t) ||
          !goal ||
          goal.start !== c.line[end].end ||
          c.hairpinIn(t.note.start, goal.note.start)
        )
          return [];
        return [
          {
            kind: 'hairpin',
            value: 'crescendo',
            at: t,
            to: goal.note.start,
            fact: about('repeated notes', c.line.slice(k, end + 2), { count: end - k + 1 })
          }
        ];
      })
  },
  {
    id: 'the-upbeat-leads-on',
    area: 'phrasing',
    title: 'Several notes of upbeat belong forward',
    looksAt: 'Phrases that begin with two notes and more before a bar line.',
    proposes: 'Words at the upbeat, once in each section.',
    periods: { classical: 0.45, romantic: 0.55, 'french-1900': 0.55 },
    sources: ['turk', 'common'],
    find: (c) => {
      const upbeats = c.facts.phrases.flatMap((p) => {
        const tones = c.between(p.start, p.end);
        const first = tones.findIndex((t) => levelAt(c.sounding, t.start) === 3);
        return first >= 2 && first <= 6 ? [tones.slice(0, first + 1)] : [];
      });
      return oncePerSection(c, upbeats, ([t]) => t.note.start).map((tones) =>
        words('to the downbeat', tones[0], about('notes over the bar line', tones))
      );
    }
  },
  {
    id: 'stay-on-the-terrace',
    area: 'dynamics',
    title: 'Levels stand beside each other without a bridge',
    looksAt: 'Two printed levels that differ, with no hairpin between them.',
    proposes: 'Words at the new level: at once.',
    periods: { baroque: 0.6 },
    sources: ['quantz', 'common'],
    find: (c) => {
      const own = c.levels.filter((l) => l.part === c.part);
      return own.slice(1).flatMap((l, k): Draft[] => {
        const tone = firstAt(c, l.start);
        return l.step !== own[k].step && tone && !c.hairpinIn(own[k].start, l.start)
          ? [words('at once', tone, ofMoment('terrace', l.start))]
          : [];
      });
    }
  },
  {
    id: 'grow-from-hairpin-to-hairpin',
    area: 'dynamics',
    title: 'Successive crescendi grow',
    looksAt: 'Two printed crescendi and more within eight bars, before the loudest mark.',
    proposes: 'Words at the first: keep room for the next.',
    periods: { classical: 0.5, romantic: 0.6, 'french-1900': 0.6 },
    sources: ['common'],
    find: (c) => {
      const ups = c.score.hairpins.filter((h) => h.part === c.part && h.kind === 'crescendo');
      return ups.flatMap((h, k): Draft[] => {
        const next = ups[k + 1];
        const tone = firstAt(c, h.start);
        const near = next && c.bar(next.start).index - c.bar(h.start).index <= 8;
        const before = ups[k - 1];
        const follows = before && c.bar(h.start).index - c.bar(before.start).index <= 8;
        return near && !follows && tone
          ? [words('keep room', tone, ofMoment('another crescendo follows', h.start, { beside: next.start }))]
          : [];
      });
    }
  },
  {
    id: 'die-away-to-nothing',
    area: 'dynamics',
    title: 'A diminuendo at the end goes to nothing',
    looksAt: 'Words such as morendo, perdendosi or al niente.',
    proposes: 'A diminuendo to the last note under the words.',
    periods: { classical: 0.5, romantic: 0.7, 'french-1900': 0.7, modern: 0.6 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words' || !/\b(morendo|perdendo|smorz|niente|dileguando|estinguendo)/i.test(d.text)) return [];
        const from = firstAt(c, d.start);
        const phrase = c.facts.phrases.find((p) => lte(p.start, d.start) && lt(d.start, p.end));
        const to = phrase && c.between(d.start, phrase.end).at(-1);
        if (!from || !to || c.hairpinIn(from.note.start, add(to.note.start, frac(1, 8)))) return [];
        const end = add(to.note.start, frac(to.end - to.start, c.sounding.ticksPerQuarter));
        return [{ kind: 'hairpin', value: 'diminuendo', at: from, to: end, fact: ofMoment('words stand', d.start, { text: d.text }) }];
      })
  },
  {
    id: 'do-not-push-what-carries',
    area: 'dynamics',
    title: 'What is piercing need not be pushed',
    looksAt: 'f and louder over notes high in a wind or brass instrument’s range.',
    proposes: 'Words, once in each section: it carries by itself.',
    periods: { classical: 0.4, romantic: 0.45, 'french-1900': 0.5, modern: 0.4, swing: 0.4 },
    needs: ['breathes'],
    sources: ['patterson', 'common'],
    find: (c) => {
      const { range, name } = c.instrument;
      if (!range) return [];
      const high = c.line.filter((t) => t.midi >= midi(range.highFrom) && (c.level(t.note.start)?.step ?? 0) >= (dynamicStep('f') ?? 6));
      return oncePerSection(c, high, (t) => t.note.start).map((t) =>
        words('do not push', t, about('carries by itself', t, { text: name }))
      );
    }
  },
  {
    id: 'accents-are-differences',
    area: 'dynamics',
    title: 'An accent stands a step over its neighbours, which stay down',
    looksAt: 'Printed accents with unaccented notes on both sides.',
    proposes: 'Words at the first of each section.',
    periods: { classical: 0.45, romantic: 0.5, modern: 0.5, swing: 0.5 },
    sources: ['common'],
    find: (c) => {
      const lone = c.line.filter(
        (t, k) =>
          k > 0 &&
          c.line[k + 1] &&
          hasMark(t, /accent/) &&
          !hasMark(c.line[k - 1], /accent/) &&
          !hasMark(c.line[k + 1], /accent/) &&
          quarters(c, t) <= 2
      );
      const around = (t: Tone): Tone[] => c.line.slice(c.line.indexOf(t) - 1, c.line.indexOf(t) + 2);
      return oncePerSection(c, lone, (t) => t.note.start).map((t) =>
        words('neighbours stay down', t, about('lone accent', around(t), { at: t.note.start }))
      );
    }
  },
  {
    id: 'open-up-at-the-solo',
    area: 'dynamics',
    title: 'At a solo the line opens up',
    looksAt: 'The word solo over the part.',
    proposes: 'Words: one step more than printed, where no other player has the tune.',
    periods: { classical: 0.5, romantic: 0.55, 'french-1900': 0.5, modern: 0.45 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words' || d.part !== c.part || !/\bsolo\b/i.test(d.text)) return [];
        const tone = firstAt(c, d.start);
        return tone && !says(c, /tutti/i, d.start, d.start)
          ? [words('open up', tone, ofMoment('words stand', d.start, { text: d.text }))]
          : [];
      })
  }
];
