import { toNumber } from '../../score/fraction.ts';
import { characterOf } from '../../style/character.ts';
import { lookUp } from '../../style/terms/lookup.ts';
import { beatOfMeter } from '../../score/meter.ts';
import { firstAt, hasMark, ofMoment, quarters, tempoAt, term } from './find.ts';
import type { Draft, Rule } from './rule.ts';

const CHARACTER_OR_TEMPO = ['character', 'tempo'];

/** Rules that name a character from key, meter, register and pace. */
export const CHARACTER: Rule[] = [
  {
    id: 'a-word-for-the-section',
    area: 'character',
    title: 'Name the character of a section',
    looksAt: 'Mode, meter, tempo, note values, level, touch and register of each section, where no word of character is printed.',
    proposes: 'One word for tone and attack.',
    periods: { baroque: 0.4, classical: 0.45, romantic: 0.5, 'french-1900': 0.5, modern: 0.35 },
    sources: ['quantz', 'common'],
    find: (c) =>
      c.facts.sections.flatMap((s): Draft[] => {
        const tone = firstAt(c, s.start);
        const tones = c.between(s.start, s.end);
        if (!tone || tones.length < 4 || c.bar(tone.note.start) !== c.bar(s.start) || !c.hasTune(tone)) return [];
        const length = toNumber(s.end) - toNumber(s.start);
        const tempo = tempoAt(c, tone.note.start);
        // Without a tempo nobody knows the pace.
        if (tempo === null) return [];
        const pace = (tones.length / length) * (tempo / 60);
        const mean =
          tones.reduce((sum, t) => sum + t.midi * quarters(c, t), 0) /
          Math.max(
            0.01,
            tones.reduce((sum, t) => sum + quarters(c, t), 0)
          );
        // Where the page speaks the rule is silent; what is said at the beginning holds for what follows.
        const printed = c.score.directions.some(
          (d) => d.kind === 'words' && lookUp(d.text).terms.some((t) => CHARACTER_OR_TEMPO.some((e) => t.effects.includes(e)))
        );
        if (printed) return [];
        const minor = s.opens.endsWith('minor');
        const found = characterOf({
          minor,
          pace,
          height: mean - c.line.reduce((sum, t) => sum + t.midi, 0) / c.line.length,
          level: c.level(tone.note.start)?.step ?? null,
          compound: beatOfMeter(c.bar(s.start)).slots === 3,
          detached: tones.filter((t) => hasMark(t, /^staccat/)).length / tones.length,
          stepwise: tones.slice(1).filter((t, k) => Math.abs(t.height - tones[k].height) === 1).length / tones.length
        });
        if (!found) return [];
        const { word, because } = found;
        return [
          term(word, tone, ofMoment('character', s.start, { text: `${s.opens}, ${because}`, fact: s.id }), {
            facts: [s.id],
            confidence: s.confidence
          })
        ];
      })
  }
];
