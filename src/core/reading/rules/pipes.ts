import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import type { RuleContext } from '../context.ts';
import { about, oncePerSection, quarters } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** First notes of full bars with which a phrase reaches its first strong beat, where they are long. */
const arrivals = (c: RuleContext): Tone[] =>
  c.facts.phrases.flatMap((p) => {
    const tone = c.between(p.start, p.end).find((t) => levelAt(c.sounding, t.start) === 3);
    return tone && quarters(c, tone) >= 1 ? [tone] : [];
  });

/** Rules for the Highland pipes, which have one loudness: what is held and what is cut. Common practice. */
export const PIPES: Rule[] = [
  {
    id: 'hold-the-last-note-of-the-phrase',
    area: 'weight',
    title: 'Where the phrase comes to rest the note is held to its end',
    looksAt: 'The last note of a phrase, where it is longer than the notes before it.',
    proposes: 'A tenuto: the time is kept, and nothing taken from it for what follows.',
    periods: { 'highland-pipes': 0.6 },
    sources: ['common'],
    find: (c) =>
      c.facts.phrases.flatMap((p): Draft[] => {
        const tones = c.between(p.start, p.end);
        const last = [...tones].reverse().find((t) => quarters(c, t) >= 1);
        const before = last && tones[tones.indexOf(last) - 1];
        if (!last || !before || tones.length - tones.indexOf(last) > 2 || last.note.marks?.length) return [];
        return [
          {
            kind: 'articulation',
            value: 'tenuto',
            at: last,
            fact: about('longer than before', [before, last], { at: last.note.start }),
            facts: [p.id],
            confidence: p.confidence
          }
        ];
      })
  },
  {
    id: 'hold-the-strong-note',
    area: 'weight',
    title: 'A strong beat is shown by its length, not by its loudness',
    looksAt: 'The first downbeat of a phrase, where a note of a quarter and more begins.',
    proposes: 'A tenuto on the first of each section.',
    periods: { 'highland-pipes': 0.5 },
    sources: ['common'],
    find: (c) =>
      oncePerSection(
        c,
        arrivals(c).filter((t) => !t.note.marks?.length),
        (t) => t.note.start
      ).map((t) => ({ kind: 'articulation' as const, value: 'tenuto', at: t, fact: about('long on the downbeat', t) }))
  }
];
