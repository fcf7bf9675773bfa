import { cmp, lt, toNumber } from '../../score/fraction.ts';
import { beatOfMeter } from '../../score/meter.ts';
import type { RuleContext } from '../context.ts';
import type { SectionFact } from '../../analysis/facts.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { about, firstAt, ofMoment, parting, quarters, toneOf, words } from './find.ts';
import { levelPrinted, softened } from './levels.ts';
import { RETURN_BARS } from '../../style/rule-weights.ts';
import { rangeWords } from '../claims/places.ts';
import { insideWords } from './phrasing.ts';
import type { Draft, Rule } from './rule.ts';

/** Sections whose music has come before, with other music between. */
function returns(c: RuleContext): { section: SectionFact; first: SectionFact }[] {
  return c.facts.sections.flatMap((section, k) => {
    const plain = section.label.replace(/'/g, '');
    const earlier = c.facts.sections.slice(0, k);
    const first = earlier.find((s) => s.label.replace(/'/g, '') === plain);
    // A return that does not begin a phrase is not heard as one.
    const heard = c.facts.phrases.some((p) => cmp(p.start, section.start) === 0);
    return first && heard && earlier.at(-1)!.label.replace(/'/g, '') !== plain ? [{ section, first }] : [];
  });
}

/** A level for the first note of every return, where none is printed there and the school asks for it. */
function levelOfReturns(c: RuleContext, school: 'proclaim' | 'steal-in', level: (first: SectionFact) => string | null): Draft[] {
  if (c.schools.return !== school) return [];
  return returns(c).flatMap(({ section, first }): Draft[] => {
    const tone = firstAt(c, section.start);
    const value = level(first);
    if (!tone || value === null || levelPrinted(c, section.start, tone.note.start)) return [];
    return [
      {
        kind: 'dynamic',
        value,
        at: tone,
        fact: ofMoment('section returns', section.start, { beside: first.start, fact: section.id }),
        facts: [section.id],
        confidence: section.confidence
      }
    ];
  });
}

const LOUD = dynamicStep('mf')!;

/** Runs of bars whose music in the part has stood before, note for note, with other music between: where they begin, and their model. */
function runsAgain(c: RuleContext): { from: number; model: number; bars: number }[] {
  const content = c.score.measures.map((m) => c.contentOf(m.index));
  const first = new Map<string, number>();
  content.forEach((text, k) => text && !first.has(text) && first.set(text, k));
  const runs: { from: number; model: number; bars: number }[] = [];
  for (let k = 0; k < content.length; k++) {
    const model = content[k] ? first.get(content[k])! : k;
    if (model === k) continue;
    let bars = 1;
    while (k + bars < content.length && model + bars < k && content[k + bars] && content[k + bars] === content[model + bars]) bars++;
    if (bars >= RETURN_BARS && model + bars < k) runs.push({ from: k, model, bars });
    k += bars - 1;
  }
  return runs;
}

/** Rules that rest on the form: returns, sequences, periods, joins. */
export const FORM: Rule[] = [
  {
    id: 'as-the-first-time',
    area: 'phrasing',
    title: 'What comes again is played as it was, unless something is said',
    looksAt: 'Two bars and more that come again note for note after other music.',
    proposes: 'Words for the commentary: as in the bars where it stood first.',
    periods: { baroque: 0.45, classical: 0.5, romantic: 0.45, 'french-1900': 0.45, modern: 0.4 },
    sources: ['common'],
    find: (c) =>
      runsAgain(c).flatMap(({ from, model, bars }): Draft[] => {
        const [start, first] = [c.score.measures[from].start, c.score.measures[model].start];
        const tone = firstAt(c, start);
        if (!tone) return [];
        const last = c.score.measures[model + bars - 1].start;
        const fact = ofMoment('same bars', start, { beside: first, count: bars });
        return [words(`as in ${rangeWords(c.score, first, last)}`, tone, fact)];
      })
  },
  {
    id: 'proclaim-the-return',
    area: 'phrasing',
    title: 'Proclaim the return of the theme',
    looksAt: 'A section that comes back after other music, where the school says “proclaim”.',
    proposes: 'The dynamic of its first time, where that was loud.',
    periods: { baroque: 0.5, classical: 0.55, romantic: 0.5 },
    sources: ['caplin', 'common'],
    find: (c) =>
      levelOfReturns(c, 'proclaim', (first) => {
        const level = c.level(first.start);
        // What was soft the first time is not proclaimed.
        return level && level.step >= LOUD ? level.sign : null;
      })
  },
  {
    id: 'steal-into-the-return',
    area: 'phrasing',
    title: 'Steal into the return of the theme',
    looksAt: 'A section that comes back after other music, where the school says “steal in”.',
    proposes: 'p for its first note.',
    periods: { romantic: 0.5, classical: 0.45 },
    sources: ['czerny'],
    find: (c) => levelOfReturns(c, 'steal-in', () => 'p')
  },
  {
    id: 'prepare-the-return',
    area: 'time',
    title: 'Prepare the return of the theme',
    looksAt: 'The bar before a section that comes back after other music.',
    proposes: '“poco rit.” in that bar (Czerny’s first case of a ritardando), and “a tempo” for the theme.',
    periods: { romantic: 0.5 },
    sources: ['czerny'],
    find: (c) =>
      // What returns as the theme is what the piece began with.
      returns(c).flatMap(({ section, first }): Draft[] => {
        if (first !== c.facts.sections[0]) return [];
        const bar = c.bar(section.start);
        const before = c.score.measures[bar.index - 1];
        const tone = before && firstAt(c, before.start);
        const spoken = c.score.directions.some((d) => d.kind === 'words' && d.measure >= bar.index - 2 && d.measure < bar.index);
        const theme = c.firstAt(section.start);
        if (!tone || !theme || spoken || !lt(tone.note.start, theme.note.start)) return [];
        const fact = ofMoment('theme returns', section.start, { beside: first.start, fact: section.id });
        const rest = { kind: 'tempo' as const, fact, facts: [section.id], confidence: section.confidence, group: section.id };
        return [
          { ...rest, value: 'poco rit.', at: tone },
          { ...rest, value: 'a tempo', at: theme, fact: about('slows to the letter', theme) }
        ];
      })
  },
  {
    id: 'sequence-units-as-groups',
    area: 'phrasing',
    title: 'Play the units of a sequence as groups',
    looksAt: 'Sequences of three units and more in the line.',
    proposes: 'Words that say how long the groups are.',
    periods: { baroque: 0.6, classical: 0.55, romantic: 0.5, modern: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.facts.sequences
        .filter((s) => s.line === 'melody')
        .flatMap((s): Draft[] => {
          const tone = firstAt(c, s.start);
          if (!tone) return [];
          const bars = s.unit.n / s.unit.d / (c.bar(s.start).length.n / c.bar(s.start).length.d);
          const size = bars === 1 ? 'one bar' : bars > 1 ? `${Number(bars.toFixed(2))} bars` : `${s.unit.n / s.unit.d} quarters`;
          return [
            words(`${s.units} groups of ${size}`, tone, ofMoment('sequence', s.start, { fact: s.id }), {
              facts: [s.id],
              confidence: s.confidence
            })
          ];
        })
  },
  {
    id: 'anchor-notes-of-the-sequence',
    area: 'weight',
    title: 'Give the anchor notes of a sequence',
    looksAt: 'The first notes of the units of a sequence in the line.',
    proposes: 'A small stress (tenuto) on each.',
    periods: { baroque: 0.5, classical: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.facts.sequences.flatMap((s) =>
        s.anchors.flatMap((id): Draft[] => {
          const tone = toneOf(c, id);
          return tone && !tone.note.marks?.length
            ? [
                {
                  kind: 'articulation',
                  value: 'tenuto',
                  at: tone,
                  fact: about('unit begins', tone, { fact: s.id }),
                  facts: [s.id],
                  confidence: s.confidence
                }
              ]
            : [];
        })
      )
  },
  {
    id: 'answer-the-question',
    area: 'dynamics',
    title: 'The answer of a period is not the question again',
    looksAt: 'Periods: a phrase that begins like the one before and closes more firmly.',
    proposes: 'One step softer for the answer, and the level before after it.',
    periods: { classical: 0.5, romantic: 0.4, baroque: 0.4 },
    sources: ['caplin', 'common'],
    find: (c) =>
      c.details.groups
        .filter((g) => g.kind === 'period')
        .flatMap((g): Draft[] => {
          const [question, answer] = g.phrases.map((id) => c.facts.phrases.find((p) => p.id === id));
          const tone = answer && firstAt(c, answer.start);
          const before = tone && c.level(tone.note.start)?.step;
          if (!question || !tone || !before || before < 3) return [];
          return softened(
            c,
            tone,
            answer.end,
            before - 1,
            before,
            ofMoment('period', answer.start, { beside: question.start, text: g.evidence }),
            { facts: [answer.id] }
          );
        })
  },
  {
    id: 'two-bars-as-one',
    area: 'phrasing',
    title: 'Feel two bars as one',
    looksAt: 'Pieces in which chords and phrases move every second bar.',
    proposes: 'Words at the beginning.',
    periods: { classical: 0.4, romantic: 0.45 },
    sources: ['lerdahl', 'common'],
    find: (c) => {
      const first = c.line[0];
      return c.details.hypermeter && first
        ? [words('two bars in one', first, about('two bars as one', first, { text: c.details.hypermeter.evidence }))]
        : [];
    }
  },
  {
    id: 'part-the-sections',
    area: 'phrasing',
    title: 'Part the sections',
    looksAt: 'Section joins without a rest, where the school says “break”.',
    proposes: 'A comma before the new section.',
    periods: { baroque: 0.45, classical: 0.5, modern: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.schools.joins !== 'break'
        ? []
        : c.facts.sections.slice(1).flatMap((s): Draft[] => {
            const before = c.lastBefore(s.start);
            const next = firstAt(c, s.start);
            if (
              !before ||
              !next ||
              next.start > before.end ||
              next.note.staff !== before.note.staff ||
              insideWords(c, before, next) ||
              quarters(c, before) < Math.max(1, toNumber(beatOfMeter(c.bar(before.note.start)).beat)) ||
              before.note.marks?.some((m) => m.group === 'fermata' || m.name === 'breath-mark')
            )
              return [];
            return [
              {
                ...parting(c),
                at: before,
                fact: ofMoment('section begins', s.start, { fact: s.id }),
                facts: [s.id],
                confidence: s.confidence
              }
            ];
          })
  },
  {
    id: 'go-through-the-join',
    area: 'time',
    title: 'Go through the join of two sections',
    looksAt: 'Section joins without a double bar, where the school says “flow on”.',
    proposes: '“without a break”.',
    periods: { romantic: 0.4, swing: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.schools.joins !== 'flow-on'
        ? []
        : c.facts.sections.slice(1).flatMap((s): Draft[] => {
            const tone = c.lastBefore(s.start);
            const bar = tone && c.bar(tone.note.start);
            const closed = bar?.barline === 'light-light' || bar?.repeatEnd || tone?.note.marks?.some((m) => m.group === 'fermata');
            return tone && !closed
              ? [
                  words('without a break', tone, ofMoment('section begins', s.start, { fact: s.id }), {
                    facts: [s.id],
                    confidence: s.confidence
                  })
                ]
              : [];
          })
  },
  {
    id: 'opposite-upbeats',
    area: 'phrasing',
    title: 'Opposite upbeats ask for opposite gestures',
    looksAt: 'A rising upbeat after falling ones, or the other way.',
    proposes: 'Words at the first that differs.',
    periods: { baroque: 0.4, classical: 0.4, romantic: 0.4 },
    sources: ['common'],
    find: (c) => {
      const upbeats = c.details.gestures.filter((g) => g.kind === 'rising upbeat' || g.kind === 'falling upbeat');
      const other = upbeats.find((g) => g.kind !== upbeats[0].kind);
      const tone = other && firstAt(c, other.start);
      const goal = other && firstAt(c, other.end);
      return tone && goal
        ? [
            words(
              other.kind === 'rising upbeat' ? 'this one rises' : 'this one falls',
              tone,
              about('upbeat goes the other way', [tone, goal])
            )
          ]
        : [];
    }
  }
];
