import { toNumber } from '../../score/fraction.ts';
import { characterOf } from '../../style/character.ts';
import { firstAt, quarters, tempoAt, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** Rules that name a character from key, meter, register and pace. */
export const CHARACTER: Rule[] = [
  {
    id: 'a-word-for-the-section',
    area: 'character',
    title: 'Name the character of a section',
    looksAt: 'Mode, tempo, note values and register of each section, where no word of character is printed.',
    proposes: 'One word for tone and attack.',
    periods: { baroque: 0.4, classical: 0.45, romantic: 0.5, 'french-1900': 0.5, modern: 0.35 },
    sources: ['quantz', 'common'],
    find: (c) =>
      c.facts.sections.flatMap((s): Draft[] => {
        const tone = firstAt(c, s.start);
        const tones = c.between(s.start, s.end);
        if (!tone || tones.length < 4) return [];
        const length = toNumber(s.end) - toNumber(s.start);
        const tempo = tempoAt(c, tone.note.start);
        const pace = (tones.length / length) * ((tempo ?? 90) / 60);
        const mean =
          tones.reduce((sum, t) => sum + t.midi * quarters(c, t), 0) /
          Math.max(
            0.01,
            tones.reduce((sum, t) => sum + quarters(c, t), 0)
          );
        const printed = c.score.directions.some(
          (d) =>
            d.kind === 'words' &&
            d.measure === tone.note.measure &&
            /dolce|espress|cantab|maest|agitat|grazios|giocos|dolor|tranq|mest|brill|leggier|marcat/i.test(d.text)
        );
        if (printed) return [];
        const minor = s.opens.endsWith('minor');
        const { word, because } = characterOf(minor, pace, mean, c.line.reduce((sum, t) => sum + t.midi, 0) / c.line.length);
        return [words(word, tone, `${c.place(s.start)}: ${s.opens}, ${because}`, { facts: [s.id], confidence: s.confidence })];
      })
  }
];
