import { DETACHED_SHARES, TEMPO_RELATIONS } from '../../style/rule-weights.ts';
import { clarityCeiling } from '../../style/clarity.ts';
import { danceOf } from '../../style/dances.ts';
import { suggestedTempo } from '../../survey/tempo.ts';
import type { Score } from '../../score/model.ts';
import { nearestOnScale, onScaleBelow, setsATempo, tempoOfWords } from '../../style/tempo-words.ts';
import { beatOfMeter } from '../../score/meter.ts';
import { toNumber } from '../../score/fraction.ts';
import { tempoMarks } from '../../score/tempo.ts';
import { about, firstAt, hasMark, ofMoment, quarters, says, tempoAt, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** A metronome mark in the beat of the first bar: the rate of the scale that is nearest. */
function metronomeText(score: Score, rate: number): string {
  const beat = toNumber(beatOfMeter(score.measures[0]).beat);
  const unit = beat === 0.5 ? 'eighth' : beat === 1.5 ? 'quarter.' : beat === 2 ? 'half' : 'quarter';
  return `${unit} = ${nearestOnScale(rate)}`;
}

/** Rules for the tempo itself: what the page gives, what can be heard, what words mean. Handbook 6.3, 6.4. */
export const TEMPO: Rule[] = [
  {
    id: 'metronome-for-the-tempo-word',
    area: 'tempo',
    title: 'Give the tempo word a metronome mark',
    looksAt: 'A tempo word at the beginning without a metronome mark.',
    proposes: 'The middle of the word’s usual range, on the metronome scale.',
    periods: { baroque: 0.5, classical: 0.6, romantic: 0.6, 'french-1900': 0.6, modern: 0.5, swing: 0.5, 'highland-pipes': 0.5 },
    sources: ['common'],
    find: (c) => {
      const first = c.line[0];
      if (!first || tempoMarks(c.score).length) return [];
      const d = c.score.directions.find((x) => x.kind === 'words' && tempoOfWords(x.text));
      const word = d?.kind === 'words' ? tempoOfWords(d.text) : null;
      if (!word) return [];
      return [
        {
          kind: 'metronome',
          value: metronomeText(c.score, (word.low + word.high) / 2),
          at: first,
          fact: about('tempo word', first, { text: (d as { text: string }).text })
        }
      ];
    }
  },
  {
    id: 'metronome-for-the-dance',
    area: 'tempo',
    title: 'A dance has its tempo',
    looksAt: 'A title that names a dance, where no tempo is printed.',
    proposes: 'The middle of the dance’s usual range, on the metronome scale.',
    periods: { baroque: 0.55, classical: 0.5, romantic: 0.5, modern: 0.4, 'highland-pipes': 0.6 },
    sources: ['common'],
    find: (c) => {
      const [first] = c.line;
      const dance = danceOf(c.score.title);
      const tempo = suggestedTempo(c.score);
      const spoken = c.score.directions.some((d) => d.kind === 'words' && d.start.n === 0 && setsATempo(d.text));
      if (!first || !dance?.tempo || !tempo || tempo.name !== dance.name || spoken || tempoMarks(c.score).length) return [];
      const value = metronomeText(c.score, (tempo.beats.low + tempo.beats.high) / 2);
      return [{ kind: 'metronome', value, at: first, fact: about('dance named', first, { text: dance.name }) }];
    }
  },
  {
    id: 'not-faster-than-it-speaks',
    area: 'tempo',
    title: 'Not faster than the articulation still speaks',
    looksAt: 'Detached notes whose sound or silence is shorter than can be heard at the printed tempo.',
    proposes: 'The clarity ceiling on the metronome scale, with its arithmetic.',
    periods: { baroque: 0.6, classical: 0.7, romantic: 0.5, 'french-1900': 0.6, modern: 0.5 },
    sources: ['common'],
    find: (c) => {
      const dots = c.line.filter((t) => hasMark(t, /^staccat/));
      const shortest = dots.sort((a, b) => quarters(c, a) - quarters(c, b))[0];
      if (!shortest || c.schools.tempo === 'brilliant') return [];
      const tempo = tempoAt(c, shortest.note.start);
      const share = DETACHED_SHARES[c.schools.staccato ?? 'half'] ?? 0.5;
      const ceiling = clarityCeiling(quarters(c, shortest), share);
      if (!tempo || tempo <= ceiling) return [];
      return [
        words(`not above ${onScaleBelow(ceiling)}`, shortest, about('clear up to', shortest, { count: ceiling, text: String(share) }))
      ];
    }
  },
  {
    id: 'say-when-the-tempo-word-changes-nothing',
    area: 'tempo',
    title: 'A new tempo word needs its relation to the old one',
    looksAt: 'Tempo words inside the piece without a metronome mark beside them.',
    proposes: 'Words that ask for the relation: beat equals beat, or a new pulse.',
    periods: { classical: 0.4, romantic: 0.45, modern: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words' || d.measure === 0 || !tempoOfWords(d.text) || /tempo/i.test(d.text)) return [];
        const marked = tempoMarks(c.score).some((m) => m.measure === d.measure && m.printed);
        const tone = firstAt(c, d.start);
        return !marked && tone && !says(c, /l['’]istesso/i, d.start, d.start)
          ? [words('new pulse?', tone, ofMoment('tempo word without a number', d.start, { text: d.text }))]
          : [];
      })
  },
  {
    id: 'relate-the-sections',
    area: 'tempo',
    title: 'Say how two tempi are related',
    looksAt: 'Two printed tempi whose ratio is near 1:2, 2:3, 3:4 or their inverses.',
    proposes: 'Words at the new tempo with the ratio and the exact number.',
    periods: { baroque: 0.5, classical: 0.45, romantic: 0.4, modern: 0.5 },
    sources: ['common'],
    find: (c) => {
      const marks = tempoMarks(c.score).filter((m) => m.printed);
      return marks.slice(1).flatMap((m, k): Draft[] => {
        const before = (marks[k].low + marks[k].high) / 2;
        const now = (m.low + m.high) / 2;
        const near = TEMPO_RELATIONS.find(([a, b]) => Math.abs(now / before / (a / b) - 1) < 0.06);
        const tone = firstAt(c, m.start);
        if (!near || !tone || now === before) return [];
        const exact = Math.round((before * near[0]) / near[1]);
        return [
          words(
            `${near[1]} old beats = ${near[0]} new`,
            tone,
            ofMoment('tempi related', m.start, { text: `${near[0]} to ${near[1]}`, count: exact })
          )
        ];
      });
    }
  }
];
