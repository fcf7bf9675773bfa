import { CADENZA_GROUPS } from '../../style/rule-weights.ts';
import { add, cmp, frac, lt, mul } from '../../score/fraction.ts';
import type { TimeAct } from '../../style/terms/acts.ts';
import { readWords, slows, timeActIn } from '../../style/terms/read-words.ts';
import { about, actsOnTime, firstAt, hasMark, ofMoment, quarters, says, term, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/**
 * Groups of a free run as the line turns: each begins where the direction changes, none is shorter than three notes or longer than
 * nine. Handbook 7.7.
 * @param heights of the notes, in semitones
 */
export function contourGroups(heights: readonly number[]): number[] {
  const { least, most } = CADENZA_GROUPS;
  const turns = heights.flatMap((h, k) => {
    const [before, after] = [heights[k - 1], heights[k + 1]];
    return before !== undefined && after !== undefined && (h - before) * (after - h) < 0 ? [k] : [];
  });
  const cuts = [0];
  for (const k of turns) if (k - cuts[cuts.length - 1] >= least && heights.length - k >= least) cuts.push(k);
  return cuts.flatMap((from, k) => {
    const size = (cuts[k + 1] ?? heights.length) - from;
    const parts = Math.ceil(size / most);
    return Array.from({ length: parts }, (_, n) => Math.floor(((n + 1) * size) / parts) - Math.floor((n * size) / parts));
  });
}

/** Rules for words on time: what begins must end, what slows by itself needs no help. Handbook 7.5 to 7.7. */
export const PACE: Rule[] = [
  {
    id: 'the-notes-slow-by-themselves',
    area: 'time',
    title: 'No slowing where the notes themselves slow down',
    looksAt: 'Values that grow one after the other, such as eighths, triplets, quarters.',
    proposes: 'Words: in time.',
    periods: { classical: 0.5, romantic: 0.6, 'french-1900': 0.6 },
    sources: ['common'],
    find: (c) =>
      c.details.rhythms
        .filter((r) => r.kind === 'written-out slowing')
        .flatMap((r): Draft[] => {
          const tone = firstAt(c, r.start);
          return tone && !actsOnTime(c, slows, r.start, r.end)
            ? [words('in time', tone, ofMoment('values grow', r.start, { to: r.end, text: r.evidence }))]
            : [];
        })
  },
  {
    id: 'say-where-the-hurry-stops',
    area: 'time',
    title: 'An accelerando has a place where it stops',
    looksAt: 'Accelerando, stringendo and the like without a later word or mark on time.',
    proposes: '“a tempo” at the next phrase.',
    periods: { classical: 0.6, romantic: 0.7, 'french-1900': 0.7, modern: 0.6 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words' || timeActIn(d.text)?.kind !== 'fast') return [];
        const end = c.score.measures[c.score.measures.length - 1];
        const stops = (act: TimeAct): boolean => act.kind === 'restore' || act.kind === 'same' || slows(act);
        if (actsOnTime(c, stops, d.start, add(end.start, end.length))) return [];
        const phrase = c.facts.phrases.find((p) => cmp(p.start, d.start) > 0);
        const tone = phrase && firstAt(c, phrase.start);
        return tone
          ? [{ kind: 'tempo', value: 'a tempo', at: tone, fact: ofMoment('does not say where it stops', d.start, { text: d.text }) }]
          : [];
      })
  },
  {
    id: 'die-away-in-both',
    area: 'time',
    title: 'Dying away acts on loudness and on time',
    looksAt: 'Morendo, perdendosi, smorzando; calando outside the 18th century.',
    proposes: 'Words: softer and slower.',
    periods: { romantic: 0.6, 'french-1900': 0.6, modern: 0.45 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words') return [];
        const { time, loudness } = readWords(d.text);
        if (time?.kind !== 'slow' || loudness?.kind !== 'swell' || loudness.way > 0) return [];
        const tone = firstAt(c, d.start);
        return tone ? [words('softer and slower', tone, ofMoment('words stand', d.start, { text: d.text }))] : [];
      })
  },
  {
    id: 'calando-in-loudness-only',
    area: 'time',
    title: 'Calando in Mozart’s time acts on loudness only',
    looksAt: 'The word calando.',
    proposes: 'Words: softer, in time.',
    periods: { classical: 0.6 },
    sources: ['common'],
    find: (c) =>
      c.score.directions.flatMap((d): Draft[] => {
        if (d.kind !== 'words' || !/\bcalando\b/i.test(d.text)) return [];
        const tone = firstAt(c, d.start);
        return tone ? [words('softer, in time', tone, ofMoment('words stand', d.start, { text: d.text }))] : [];
      })
  },
  {
    id: 'how-long-the-fermata',
    area: 'time',
    title: 'Say how long a fermata is held',
    looksAt: 'Printed fermatas on notes.',
    proposes: 'The held length in beats: about once again the written value, less on long notes.',
    periods: { classical: 0.5, romantic: 0.5, 'french-1900': 0.55, modern: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.line.flatMap((t): Draft[] => {
        if (!t.note.marks?.some((m) => m.group === 'fermata')) return [];
        const held = quarters(c, t) <= 1 ? 2 : quarters(c, t) <= 2 ? 1.75 : 1.5;
        const beats = Number((quarters(c, t) * held).toFixed(2));
        return [words(`hold about ${beats} quarters`, t, about('fermata', t))];
      })
  },
  {
    id: 'group-the-cadenza',
    area: 'time',
    title: 'A free cadenza is grouped',
    looksAt: 'Bars without a meter that hold a dozen notes and more.',
    proposes: 'The groups, as the line turns, with the first note of each leaned on.',
    periods: { romantic: 0.6, 'french-1900': 0.65, classical: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.score.measures.flatMap((m): Draft[] => {
        const notes = c.lineIn(m.index);
        if (m.time?.quarters || notes.length < 12) return [];
        const groups = contourGroups(notes.map((t) => t.midi));
        return [words(`groups ${groups.join(' · ')}`, notes[0], ofMoment('notes without a meter', m.start, { count: notes.length }))];
      })
  },
  {
    id: 'read-the-cadenza-as-slowing',
    area: 'time',
    title: 'Values in a cadenza ad libitum are read as gradual',
    looksAt: 'Bars without a meter in which values grow toward the end.',
    proposes: 'Words: gradually, not by steps.',
    periods: { romantic: 0.5, 'french-1900': 0.55 },
    sources: ['common'],
    find: (c) =>
      c.score.measures.flatMap((m): Draft[] => {
        const notes = c.lineIn(m.index);
        if (m.time?.quarters || notes.length < 8) return [];
        const last = notes.slice(-3);
        const grows =
          last.every((t, k) => k === 0 || quarters(c, t) >= quarters(c, last[k - 1])) && quarters(c, last[2]) > quarters(c, last[0]);
        return grows ? [words('gradually', last[0], about('values grow in the free bar', last))] : [];
      })
  },
  {
    id: 'back-to-the-letter',
    area: 'time',
    title: 'After freedom the written rhythm is exact again',
    looksAt: 'The first measured bar after a free one, or after “ad libitum” and the like.',
    proposes: 'Words: in time.',
    periods: { classical: 0.5, romantic: 0.55, 'french-1900': 0.6 },
    sources: ['common'],
    find: (c) =>
      c.score.measures.slice(1).flatMap((m): Draft[] => {
        const before = c.score.measures[m.index - 1];
        const free =
          !before.time?.quarters ||
          says(c, /ad lib|a piacere|senza misura|quasi cadenza/i, before.start, mul(add(before.start, m.start), frac(1, 2)));
        // “Tempo I” says it already.
        const said = actsOnTime(c, (act) => act.kind === 'restore', m.start, m.start);
        const tone = free && m.time?.quarters && !said ? c.firstAt(m.start) : null;
        const own = tone && lt(tone.note.start, add(m.start, m.length));
        return own ? [term('strictly in time', tone, ofMoment('measured again', m.start))] : [];
      })
  },
  {
    id: 'no-hurry-at-the-long-note',
    area: 'time',
    title: 'A long note before a rest lasts its full value',
    looksAt: 'Notes of three quarters and more before a rest, without a fermata.',
    proposes: 'Words at the first of each section: full length.',
    periods: { 'french-1900': 0.5, modern: 0.4 },
    sources: ['common'],
    find: (c) =>
      c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        const first = !c.line.slice(0, k).some((x) => quarters(c, x) >= 3);
        return first && next && next.start > t.end && quarters(c, t) >= 3 && !hasMark(t, /fermata/)
          ? [words('full length', t, about('long before a rest', t))]
          : [];
      })
  }
];
