import { add, cmp, lte, sub, type Fraction } from '../../score/fraction.ts';
import type { CadenceFact } from '../../analysis/facts.ts';
import type { RuleContext } from '../context.ts';
import { timeActIn } from '../../style/terms/read-words.ts';
import { about, actsOnTime, ofMoment } from './find.ts';
import type { Rule } from './rule.ts';

/** Something already speaks of time near a moment. */
const timeWordIn = (c: RuleContext, from: Fraction, to: Fraction): boolean => actsOnTime(c, () => true, from, to);

/** The notes slow down by themselves somewhere in [from, to]. */
const slowsByItself = (c: RuleContext, from: Fraction, to: Fraction): boolean =>
  c.details.rhythms.some((r) => r.kind === 'written-out slowing' && lte(r.start, to) && lte(from, r.end));

/** The firm cadences at which a section closes. */
function closingCadences(c: RuleContext): CadenceFact[] {
  return c.facts.cadences.filter((cadence) => {
    const bar = c.bar(cadence.start);
    const next = c.score.measures[bar.index + 1];
    const closes = !next || bar.repeatEnd || bar.barline === 'light-light' || bar.barline === 'light-heavy' || next.repeatStart;
    return Boolean(closes) && (cadence.type === 'PAC' || cadence.type === 'IAC');
  });
}

export const TIME: Rule[] = [
  {
    id: 'broaden-into-the-close',
    area: 'time',
    title: 'Broaden into the close of a section',
    looksAt: 'Authentic cadences at the end of a section where no word speaks of time.',
    proposes: '“poco rit.” one bar before the arrival, and “a tempo” where the music goes on.',
    periods: { romantic: 0.7 },
    sources: ['czerny', 'friberg'],
    find: (c) =>
      closingCadences(c).flatMap((cadence) => {
        const from = barBefore(c, cadence.start);
        const tone = c.firstAt(from);
        if (!tone || slowsByItself(c, from, cadence.start) || timeWordIn(c, sub(from, c.bar(from).length), cadence.start)) return [];
        const rest = { facts: [cadence.id], confidence: cadence.confidence, group: `${tone.note.start.n}_${tone.note.start.d}` };
        const phrase = c.facts.phrases.find((p) => cmp(p.start, cadence.start) > 0);
        const next = phrase && c.firstAt(phrase.start);
        return [
          {
            ...rest,
            kind: 'tempo' as const,
            value: 'poco rit.',
            at: tone,
            fact: ofMoment('closes the section', cadence.start, { fact: cadence.id })
          },
          ...(next
            ? [
                {
                  ...rest,
                  kind: 'tempo' as const,
                  value: 'a tempo',
                  at: next,
                  fact: about('goes on after the close', next, { text: c.place(cadence.start) })
                }
              ]
            : [])
        ];
      })
  },
  {
    id: 'restore-the-tempo',
    area: 'time',
    title: 'After a ritardando say where the tempo is restored',
    looksAt: 'Printed ritardandi after which a new phrase begins without “a tempo”.',
    proposes: '“a tempo” at the next phrase.',
    periods: { classical: 0.7, romantic: 0.8 },
    sources: ['czerny', 'common'],
    find: (c) =>
      c.score.directions.flatMap((d) => {
        if (d.kind !== 'words' || timeActIn(d.text)?.kind !== 'slow') return [];
        const phrase = c.facts.phrases.find((p) => cmp(p.start, d.start) > 0);
        if (!phrase || timeWordIn(c, add(d.start, { n: 1, d: 1000 }), phrase.start)) return [];
        const tone = c.between(phrase.start, phrase.end)[0];
        return tone
          ? [
              {
                kind: 'tempo' as const,
                value: 'a tempo',
                at: tone,
                fact: ofMoment('never taken back', d.start, { text: d.text }),
                facts: [phrase.id],
                confidence: phrase.confidence
              }
            ]
          : [];
      })
  },
  {
    id: 'only-the-last-cadence-slows',
    area: 'time',
    title: 'Keep the dance in time; only the last cadence may settle',
    looksAt: 'The last cadence of the piece, the last time it is played.',
    proposes: '“settle, last time only” in the cadence bar.',
    periods: { baroque: 0.5 },
    sources: ['quantz', 'common'],
    find: (c) => {
      const cadence = closingCadences(c).at(-1);
      const last = c.facts.cadences.at(-1);
      if (!cadence || cadence !== last) return [];
      const from = barBefore(c, cadence.start);
      const tone = c.firstAt(from);
      if (!tone || timeWordIn(c, from, cadence.start)) return [];
      return [
        {
          kind: 'tempo' as const,
          value: 'settle, last time only',
          at: tone,
          fact: ofMoment('last cadence', cadence.start, { fact: cadence.id }),
          facts: [cadence.id],
          confidence: cadence.confidence
        }
      ];
    }
  },
  {
    id: 'wait-on-the-dominant',
    area: 'time',
    title: 'A half cadence may wait before the theme goes on',
    looksAt: 'Half cadences at a phrase end.',
    proposes: 'A fermata-like breath: “wait a little”.',
    periods: { romantic: 0.45 },
    sources: ['czerny'],
    find: (c) =>
      c.facts.cadences
        .filter((x) => x.type === 'HC')
        .flatMap((cadence) => {
          const phrase = c.facts.phrases.find((p) => p.cadence === cadence.id);
          const tone = phrase && c.lastBefore(phrase.end);
          if (!tone || tone.note.marks?.some((m) => m.group === 'fermata') || timeWordIn(c, cadence.start, tone.note.start)) return [];
          return [
            {
              kind: 'advice' as const,
              value: 'wait a little',
              at: tone,
              fact: ofMoment('half cadence', cadence.start, { fact: cadence.id }),
              facts: [cadence.id],
              confidence: cadence.confidence
            }
          ];
        })
  }
];

function barBefore(c: RuleContext, at: Fraction): Fraction {
  const bar = c.bar(at);
  return bar.index > 0 && cmp(at, bar.start) === 0 ? c.score.measures[bar.index - 1].start : bar.start;
}
