import { cmp, lt } from '../../score/fraction.ts';
import { levelAt, strongestWithin } from '../../analysis/sounding-score.ts';
import { dynamicStep } from '../../style/dynamics.ts';
import { about, ofMoment } from './find.ts';
import type { Rule } from './rule.ts';

const SOFT = dynamicStep('p')!;

export const WEIGHT: Rule[] = [
  {
    id: 'weight-where-harmony-changes',
    area: 'weight',
    title: 'A beat on which the harmony changes carries weight',
    looksAt: 'Weak beats in triple time on which a new chord begins, on the way to a cadence.',
    proposes: 'A small stress (tenuto) on that beat.',
    periods: { baroque: 0.6 },
    sources: ['lerdahl', 'quantz'],
    find: (c) =>
      c.facts.cadences.flatMap((cadence) => {
        const bar = c.bar(cadence.start);
        if (bar.index === 0 || bar.time?.groups[0] !== 3) return [];
        const before = c.score.measures[bar.index - 1];
        return c.facts.chords
          .filter((chord) => cmp(chord.start, before.start) > 0 && lt(chord.start, bar.start))
          .flatMap((chord) => {
            const tone = c.between(chord.start, chord.end)[0];
            if (!tone || cmp(tone.note.start, chord.start) !== 0 || tone.note.marks?.length) return [];
            return [
              {
                kind: 'articulation' as const,
                value: 'tenuto',
                at: tone,
                fact: ofMoment('harmony changes', chord.start, { fact: cadence.id }),
                facts: [chord.id, cadence.id],
                confidence: chord.confidence * cadence.confidence
              }
            ];
          });
      })
  },
  {
    id: 'light-upbeat',
    area: 'weight',
    title: 'An upbeat is light and leads on',
    looksAt: 'The short note before the downbeat that begins a phrase.',
    proposes: 'A detached, light upbeat.',
    periods: { baroque: 0.6, classical: 0.5, 'highland-pipes': 0.5 },
    sources: ['lmozart', 'turk'],
    find: (c) =>
      c.facts.phrases.flatMap((phrase) => {
        const first = c.between(phrase.start, phrase.end)[0];
        const next = first?.next;
        if (
          !first ||
          !next ||
          levelAt(c.sounding, next.start) !== 3 ||
          first.end - first.start > c.sounding.ticksPerQuarter ||
          levelAt(c.sounding, first.start) === 3
        )
          return [];
        // A note of the other hand while the tune rests is no upbeat to it.
        const tones = c.between(phrase.start, phrase.end);
        if (2 * tones.filter((t) => t.note.staff === first.note.staff).length < tones.length) return [];
        if (first.note.marks?.length || first.note.lyrics || c.slurred(first, next) || !c.hasTune(first)) return [];
        return [
          {
            kind: 'articulation' as const,
            value: 'staccato',
            at: first,
            fact: about('upbeat begins the phrase', [first, next], { fact: phrase.id }),
            facts: [phrase.id],
            confidence: phrase.confidence
          }
        ];
      })
  },
  {
    id: 'stress-the-syncopation',
    area: 'weight',
    title: 'A syncopation takes a natural stress',
    looksAt: 'Notes that begin off the beat and are held across a stronger one.',
    proposes: 'An accent, in p and softer a tenuto, and the note held to its end.',
    periods: { baroque: 0.5, classical: 0.6, romantic: 0.6 },
    sources: ['cpebach', 'lmozart'],
    find: (c) =>
      c.line.flatMap((tone) => {
        if (tone.note.marks?.some((m) => m.group === 'articulation')) return [];
        const level = Math.max(0, levelAt(c.sounding, tone.start));
        const crossed = strongestWithin(c.sounding, tone.start, tone.end) > Math.max(level, 0);
        const short = tone.end - tone.start > 3 * c.sounding.ticksPerQuarter;
        if (!crossed || short || level >= 2) return [];
        return [
          {
            // Where the music is soft a syncopation is leaned on, not struck.
            ...((c.level(tone.note.start, tone.note.staff)?.step ?? 5) <= SOFT
              ? { kind: 'articulation' as const, value: 'tenuto' }
              : { kind: 'accent' as const, value: 'accent' }),
            at: tone,
            fact: about('syncopation', tone)
          }
        ];
      })
  },
  {
    id: 'downbow-on-the-downbeat',
    area: 'weight',
    title: 'Down-bow on the strong beat, up-bow on the upbeat',
    looksAt: 'The beginning of each phrase.',
    proposes: 'The bow direction by which the bar’s first note comes on a down-bow.',
    periods: { baroque: 0.65, classical: 0.55 },
    needs: ['bows'],
    sources: ['muffat', 'lmozart'],
    find: (c) =>
      c.facts.phrases.flatMap((phrase) => {
        const first = c.between(phrase.start, phrase.end)[0];
        if (!first || first.note.marks?.some((m) => /bow/.test(m.name))) return [];
        const onBar = levelAt(c.sounding, first.start) === 3;
        const upbeat = first.next && levelAt(c.sounding, first.next.start) === 3;
        if (!onBar && !upbeat) return [];
        return [
          {
            kind: 'bowing' as const,
            value: onBar ? 'down-bow' : 'up-bow',
            at: first,
            fact: onBar ? about('phrase begins on the downbeat', first) : about('upbeat leads to the downbeat', [first, first.next!]),
            facts: [phrase.id],
            confidence: phrase.confidence
          }
        ];
      })
  },
  {
    id: 'weight-on-two',
    area: 'weight',
    title: 'A slow dance in three leans on its second beat',
    looksAt: 'Pieces in 3/4 or 3/2 whose second beats are long in half of the bars and more.',
    proposes: 'A tenuto on the long second beats.',
    periods: { baroque: 0.65 },
    sources: ['quantz', 'common'],
    find: (c) => {
      const leaning = c.line.filter((t) => {
        const { time, start } = c.score.measures[t.note.measure];
        if (time?.groups[0] !== 3 || time.groups.length > 1) return false;
        const beat = (4 / time.unit) * c.sounding.ticksPerQuarter;
        const inBar = t.start - Math.round((start.n * c.sounding.ticksPerQuarter) / start.d);
        return inBar === beat && t.end - t.start >= 1.5 * beat;
      });
      const full = c.score.measures.filter((m) => m.time?.groups[0] === 3).length;
      if (full < 4 || leaning.length < full / 2) return [];
      return leaning
        .filter((t) => !t.note.marks?.length)
        .map((t) => ({
          kind: 'articulation' as const,
          value: 'tenuto',
          at: t,
          fact: about('long second beat', t, { count: leaning.length, text: String(full) })
        }));
    }
  }
];
