import { levelAt, toTicks } from '../../analysis/sounding-score.ts';
import { add, frac, lt, lte, toNumber, type Fraction } from '../../score/fraction.ts';
import {
  BREAK,
  ECHO_STEPS,
  FADES_FROM,
  LEADING_HAIRPIN,
  MOST_TAPERED,
  SOFTEST_ECHO,
  SOFTEST_SECTION,
  SURE_COLOUR,
  WAY_UP
} from '../../style/rule-weights.ts';
import { dynamicAt, dynamicStep } from '../../style/dynamics.ts';
import type { RuleContext } from '../context.ts';
import { softened } from './levels.ts';
import { insideWords, leaningPairs } from './phrasing.ts';
import { about, ofMoment } from './find.ts';
import type { Draft, Rule, Said } from './rule.ts';
import type { Tone } from '../../analysis/sounding-score.ts';

/** A crescendo to its goal, which it reaches as the goal begins; a diminuendo through its last note. From where to where it goes is said by the reading, which knows the levels. */
function hairpin(c: RuleContext, kind: 'crescendo' | 'diminuendo', from: Tone, to: Tone, fact: Said, rest: Partial<Draft> = {}): Draft {
  const end = kind === 'crescendo' ? to.note.start : add(to.note.start, frac(to.end - to.start, c.sounding.ticksPerQuarter));
  return { kind: 'hairpin', value: kind, at: from, to: end, fact, ...rest };
}

const free = (c: RuleContext, from: Tone, to: Tone): boolean =>
  c.unbroken(from, to) && !c.hairpinIn(from.note.start, add(to.note.start, frac(1, 8)));

/** Stretches of the line that go one way, small turns aside, over at least a sixth and six notes. */
function ascents(c: RuleContext, up: boolean): Tone[][] {
  const found: Tone[][] = [];
  for (const phrase of c.facts.phrases) {
    const tones = c.between(phrase.start, phrase.end);
    let best: Tone[] = [];
    for (let i = 0; i < tones.length; i++) {
      let extreme = i;
      for (let j = i + 1; j < tones.length; j++) {
        const rise = (tones[j].midi - tones[extreme].midi) * (up ? 1 : -1);
        if (rise > 0) extreme = j;
        // A rest, a turn back by more than a fourth, or below the start, ends the way.
        if (j > i && tones[j].start - tones[j - 1].end >= BREAK * c.sounding.ticksPerQuarter) break;
        if (rise < -5 || (tones[j].midi - tones[i].midi) * (up ? 1 : -1) < 0) break;
      }
      const way = (tones[extreme].midi - tones[i].midi) * (up ? 1 : -1);
      if (extreme - i >= 4 && way >= WAY_UP && extreme - i + 1 > best.length) best = tones.slice(i, extreme + 1);
    }
    if (best.length) found.push(best);
  }
  return found;
}

/** A theme is not let go of where it has just begun: what fades does so after the first third of its phrase. */
function comesLate(c: RuleContext, tone: Tone): boolean {
  const phrase = c.facts.phrases.findLast((p) => lte(p.start, tone.note.start));
  if (!phrase) return true;
  const [from, to, at] = [phrase.start, phrase.end, tone.note.start].map(toNumber);
  return at - from >= (to - from) * FADES_FROM;
}

/** Moments where a section begins: after a double bar, repeat or rehearsal letter. */
function sectionStarts(c: RuleContext): Fraction[] {
  const starts: Fraction[] = [];
  c.score.measures.forEach((m, k) => {
    const before = c.score.measures[k - 1];
    // A second ending is no section.
    if (m.endingStart?.some((n) => n > 1)) return;
    if (k > 0 && (m.repeatStart || before.repeatEnd || before.barline === 'light-light' || m.rehearsal)) starts.push(m.start);
  });
  return starts;
}

export const DYNAMICS: Rule[] = [
  {
    id: 'say-how-it-begins',
    area: 'dynamics',
    title: 'Say in which dynamic the music begins',
    looksAt: 'A piece or excerpt that begins without a dynamic.',
    proposes: 'A dynamic for the first note, by period.',
    periods: { baroque: 0.9, classical: 0.9, romantic: 0.9, swing: 0.7 },
    sources: ['quantz', 'common'],
    find: (c) => {
      const first = c.line[0] ?? c.strokes[0]?.start;
      if (!first || c.profile.opening === null) return [];
      const start = 'note' in first ? first.note.start : first;
      if (c.level(start)) return [];
      // Who comes in while another part has a level takes it.
      const other = c.levels.findLast((l) => lte(l.start, start));
      const beside = other ? `${c.score.parts[other.part].name || 'the other part'} has ${other.sign}` : '';
      return [
        {
          kind: 'dynamic',
          value: other ? dynamicAt(other.step) : c.profile.opening,
          at: first,
          fact: ofMoment('no dynamic at the beginning', start, beside ? { text: beside } : {})
        }
      ];
    }
  },
  {
    id: 'say-how-a-section-begins',
    area: 'dynamics',
    title: 'Say in which dynamic a section begins',
    looksAt: 'Sections after a double bar, repeat or letter that begin without a dynamic.',
    proposes: 'A level against what came before: softer in the 18th century, one step down in the 19th.',
    periods: { baroque: 0.55, classical: 0.65, romantic: 0.5 },
    sources: ['quantz', 'common'],
    find: (c) =>
      sectionStarts(c).flatMap((start) => {
        const tone = c.firstAt(start);
        if (!tone) return [];
        const marked = c.levels.some((l) => l.part === c.part && lte(start, l.start) && lte(l.start, tone.note.start));
        if (marked) return [];
        const before = c.level(start)?.step ?? dynamicLevelOf(c);
        const softer = Math.max(SOFTEST_SECTION, before - (c.period === 'romantic' ? 1 : 2));
        if (softer >= before) return [];
        return [
          {
            kind: 'dynamic' as const,
            value: dynamicAt(softer),
            at: tone,
            fact: ofMoment('section without a dynamic', start)
          }
        ];
      })
  },
  {
    id: 'echo-the-repetition',
    area: 'dynamics',
    title: 'An immediate repetition is an echo',
    looksAt: 'A bar or two that are repeated at once, note for note.',
    proposes: 'A softer level for the second time, and the level before where the echo ends.',
    periods: { baroque: 0.7, classical: 0.4 },
    sources: ['quantz'],
    find: (c) =>
      repeatedBars(c).flatMap(({ tone, bars, after }) => {
        const before = c.level(tone.note.start)?.step ?? dynamicLevelOf(c);
        const softer = Math.max(SOFTEST_ECHO, before - ECHO_STEPS);
        if (softer >= before) return [];
        return softened(c, tone, after, softer, before, ofMoment('repeats at once', c.bar(tone.note.start).start, { count: bars }));
      })
  },
  {
    id: 'rise-grows',
    area: 'dynamics',
    title: 'What rises grows',
    looksAt: 'A way up of a sixth or more within a phrase, without a hairpin.',
    proposes: 'A crescendo to its top note.',
    periods: { romantic: 0.75, classical: 0.45, swing: 0.4 },
    sources: ['turk', 'czerny', 'friberg'],
    find: (c) =>
      ascents(c, true)
        .filter((w) => free(c, w[0], w[w.length - 1]))
        .map((w) =>
          hairpin(c, 'crescendo', w[0], w[w.length - 1], about('climbs', [w[0], w[w.length - 1]], { to: w[w.length - 1].note.start }))
        )
  },
  {
    id: 'fall-fades',
    area: 'dynamics',
    title: 'What falls fades',
    looksAt: 'A way down of a sixth or more after the first third of a phrase, without a hairpin.',
    proposes: 'A diminuendo to its lowest note.',
    periods: { romantic: 0.6 },
    sources: ['turk', 'czerny'],
    find: (c) =>
      ascents(c, false)
        .filter((w) => comesLate(c, w[0]) && free(c, w[0], w[w.length - 1]))
        .map((w) =>
          hairpin(c, 'diminuendo', w[0], w[w.length - 1], about('sinks', [w[0], w[w.length - 1]], { to: w[w.length - 1].note.start }))
        )
  },
  {
    id: 'grow-into-the-dominant',
    area: 'dynamics',
    title: 'Tonic to subdominant to dominant grows',
    looksAt: 'A predominant that leads to the dominant of a cadence.',
    proposes: 'A crescendo from the predominant to the dominant.',
    periods: { classical: 0.6, romantic: 0.5 },
    sources: ['quantz', 'common'],
    find: (c) =>
      c.facts.cadences.flatMap((cadence) => {
        if (cadence.type === 'PC') return [];
        const chords = c.facts.chords;
        let k = chords.findIndex((x) => x.id === (cadence.type === 'HC' ? cadence.to : cadence.from));
        while (k > 0 && (chords[k - 1].role === 'dominant' || chords[k - 1].cadential)) k--;
        const before = chords[k - 1];
        if (!before || (before.role !== 'predominant' && before.role !== 'colour')) return [];
        const from = c.between(before.start, before.end)[0];
        const to = c.between(chords[k].start, chords[k].end)[0];
        if (!from || !to || !free(c, from, to)) return [];
        return [
          hairpin(
            c,
            'crescendo',
            from,
            to,
            ofMoment('leads to the dominant', before.start, { beside: chords[k].start, fact: cadence.id }),
            { facts: [before.id, cadence.id], confidence: before.confidence * cadence.confidence }
          )
        ];
      })
  },
  {
    id: 'resolution-softer',
    area: 'dynamics',
    title: 'A resolution is never as loud as its dissonance',
    looksAt: 'An accented note foreign to the chord that falls by step into it.',
    proposes: 'A short diminuendo over the pair.',
    periods: { baroque: 0.7, classical: 0.75, romantic: 0.5 },
    sources: ['quantz', 'cpebach'],
    find: (c) =>
      leaningPairs(c)
        .filter(({ a, b }) => free(c, a, b))
        .map(({ a, b, chord }) => ({
          ...hairpin(c, 'diminuendo', a, b, about('leans on the chord', [a, b], { fact: chord.id })),
          facts: [chord.id],
          confidence: chord.confidence
        }))
  },
  {
    id: 'taper-the-ending',
    area: 'dynamics',
    title: 'Taper the end of a phrase',
    looksAt: 'Phrases that end on a weaker beat than their cadence, or softly after it.',
    proposes: 'A diminuendo from the arrival to the last note.',
    periods: { classical: 0.6, romantic: 0.6 },
    sources: ['turk', 'todd'],
    find: (c) =>
      c.facts.phrases.flatMap((phrase) => {
        const cadence = c.cadenceOf(phrase);
        if (!cadence) return [];
        const tones = c.between(cadence.start, phrase.end);
        const [first, last] = [tones[0], tones[tones.length - 1]];
        // A phrase that ends with its arrival has nothing left to taper, and one that goes on far beyond it has not ended there.
        const near = first && last && last.end - toTicks(c.sounding, cadence.start) <= MOST_TAPERED * c.sounding.ticksPerQuarter;
        // What the other hand does while the tune rests is no ending of the tune.
        const weaker = near && last.note.staff === first.note.staff && levelAt(c.sounding, last.start) < levelAt(c.sounding, first.start);
        const goesOn = last?.next && insideWords(c, last, last.next);
        if (tones.length < 2 || !weaker || goesOn || !c.hasTune(last) || !free(c, first, last)) return [];
        return [
          hairpin(c, 'diminuendo', first, last, about('weaker ending', [first, last], { at: cadence.start, text: cadence.type }), {
            facts: [phrase.id, cadence.id],
            confidence: cadence.confidence
          })
        ];
      })
  },
  {
    id: 'bring-out-the-colour',
    area: 'dynamics',
    title: 'Bring out the chord of colour',
    looksAt: 'Neapolitan and augmented sixth chords, and the goal of a deceptive cadence.',
    proposes: 'A stress on its first note: a weight in the 18th century, a held stress in the 19th.',
    periods: { baroque: 0.8, classical: 0.75, romantic: 0.8 },
    sources: ['cpebach', 'quantz'],
    find: (c) => {
      const drafts: Draft[] = [];
      for (const chord of c.facts.chords) {
        const goal = c.facts.cadences.find((x) => x.type === 'DC' && x.to === chord.id);
        if ((!chord.special && !goal) || chord.confidence < SURE_COLOUR) continue;
        const tone = c.between(chord.start, chord.end)[0];
        if (!tone || tone.note.marks?.some((m) => m.name === 'accent' || m.name === 'tenuto')) continue;
        const what = chord.special ? 'chord of colour' : 'goes elsewhere';
        const value = c.period === 'romantic' ? 'tenuto' : 'accent';
        drafts.push({
          kind: value === 'tenuto' ? 'articulation' : 'accent',
          value,
          at: tone,
          fact: ofMoment(what, chord.start, { fact: chord.id }),
          facts: [chord.id],
          confidence: chord.confidence
        });
      }
      return drafts;
    }
  },
  {
    id: 'give-the-hairpin-a-goal',
    area: 'dynamics',
    title: 'Give every hairpin a goal',
    looksAt: 'Printed hairpins after which no dynamic follows within a bar.',
    proposes: 'The dynamic that it leads to: one step on.',
    periods: { classical: 0.6, romantic: 0.7 },
    sources: ['common'],
    find: (c) =>
      c.score.hairpins
        .filter((h) => h.part === c.part)
        .flatMap((h) => {
          const until = add(h.end, c.bar(h.end).length);
          if (c.levels.some((l) => l.part === c.part && lte(h.end, l.start) && lt(l.start, until))) return [];
          // A swell over a note or two has no goal of its own.
          if (toNumber(h.end) - toNumber(h.start) < LEADING_HAIRPIN) return [];
          const next = c.score.hairpins.some((o) => o !== h && o.part === c.part && lte(h.end, o.start) && lt(o.start, until));
          // The goal is the beat to which it leads, not the last note before it.
          const nearest = c.firstAt(h.end);
          const strong =
            nearest && c.between(h.end, add(h.end, frac(1))).find((t) => levelAt(c.sounding, t.start) > levelAt(c.sounding, nearest.start));
          const goal = strong ?? nearest;
          if (!goal || (next && c.period === 'romantic')) return [];
          const start = c.level(h.start)?.step ?? 4;
          const value = dynamicAt(Math.max(2, Math.min(8, start + (h.kind === 'crescendo' ? 1 : -1))));
          return [
            {
              kind: 'dynamic' as const,
              value,
              at: goal,
              staff: h.staff,
              fact: ofMoment('hairpin without a goal', h.start, { text: h.kind })
            }
          ];
        })
  }
];

const dynamicLevelOf = (c: RuleContext): number => (c.profile.opening === null ? null : dynamicStep(c.profile.opening)) ?? 4;

/** Bars that repeat the one or two bars before them exactly. */
function repeatedBars(c: RuleContext): { tone: Tone; bars: number; after: Fraction }[] {
  const { score } = c;
  const shape = score.measures.map(() => '');
  const firsts = new Map<number, Tone>();
  for (const tone of c.line) {
    const m = tone.note.measure;
    if (!firsts.has(m)) firsts.set(m, tone);
    shape[m] += `${tone.note.onset.n}/${tone.note.onset.d}:${tone.midi};`;
  }
  const found: { tone: Tone; bars: number; after: Fraction }[] = [];
  for (let m = 1; m < shape.length; m++) {
    for (const bars of [2, 1]) {
      if (m < bars) continue;
      const now = shape.slice(m, m + bars);
      const tone = firsts.get(m);
      const varied = now.every((s) => s.split(';').length > 3);
      if (tone && varied && now.length === bars && now.every((s, k) => s === shape[m - bars + k])) {
        // Bars that go on repeating are one case.
        let end = m + bars;
        while (end < shape.length && shape[end] === shape[end - bars]) end++;
        const last = score.measures[end - 1];
        found.push({ tone, bars, after: add(last.start, last.length) });
        m = end - 1;
        break;
      }
    }
  }
  return found;
}
