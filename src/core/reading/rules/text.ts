import { inSigns } from '../../analysis/words.ts';
import { alteredNotes } from '../../score/accidentals.ts';
import { pitchName } from '../../score/pitch.ts';
import { missReason } from '../../survey/ledger.ts';
import type { Note } from '../../score/model.ts';
import type { RuleContext } from '../context.ts';
import { about, toneOf, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

/** A question at the second of two places with the same music, for the first difference of some kinds that stands at a note there. */
const asInTheParallel = (c: RuleContext, kinds: readonly string[]): Draft[] =>
  c.facts.parallels
    .filter((p) => p.semitones % 12 === 0)
    .flatMap((p): Draft[] => {
      const d = p.differences.find((x) => kinds.includes(x.kind) && x.noteB);
      const tone = d?.noteB ? toneOf(c, d.noteB) : null;
      if (!d || !tone) return [];
      const text = `${c.place(d.b)} and ${c.place(d.a)} are the same music; ${d.what}`;
      const fact = about('parallel differs', tone, { fact: p.id, text });
      return [words(`${d.kind} as in ${c.place(d.a)}?`, tone, fact, { facts: [p.id], confidence: p.confidence })];
    });

/** Rules about the text itself: questions, never silent corrections. Handbook 2.10, 2.11. */
export const TEXT: Rule[] = [
  {
    id: 'ask-about-the-suspect-note',
    area: 'text',
    title: 'Ask about a note that its parallel place has otherwise',
    looksAt: 'Notes that differ from the same music elsewhere and fit their chord or key less well.',
    proposes: 'By school: a question mark with the other reading, or the correction, with a footnote.',
    periods: { baroque: 0.8, classical: 0.8, romantic: 0.8, 'french-1900': 0.8, modern: 0.7, swing: 0.5 },
    sources: ['common'],
    find: (c) =>
      c.details.suspects.flatMap((s): Draft[] => {
        const tone = toneOf(c, s.note);
        const emend = c.schools['suspect-notes'] === 'emend-and-footnote';
        const name = inSigns(s.expected.replace(/\d+$/, ''));
        return tone
          ? [
              words(emend ? `read ${name}` : `${name}?`, tone, about('suspect note', tone, { text: s.evidence }), {
                confidence: s.confidence
              })
            ]
          : [];
      })
  },
  {
    id: 'same-slur-in-the-parallel-place',
    area: 'text',
    title: 'Ask whether parallel places are slurred differently on purpose',
    looksAt: 'Slurs that differ between places with the same notes.',
    proposes: 'A question at the second place.',
    periods: { baroque: 0.5, classical: 0.6, romantic: 0.55, 'french-1900': 0.5 },
    sources: ['common'],
    find: (c) => asInTheParallel(c, ['slur'])
  },
  {
    id: 'remind-of-the-carried-accidental',
    area: 'text',
    title: 'Remind of an accidental that is carried through the bar',
    looksAt: 'Altered notes without a printed sign, far from the sign that they depend on.',
    proposes: 'The accidental as a reminder.',
    periods: { baroque: 0.6, classical: 0.6, romantic: 0.6, 'french-1900': 0.6, modern: 0.7, swing: 0.6 },
    sources: ['common'],
    find: (c) => {
      const bars = new Map<string, Note[]>();
      for (const n of c.score.notes) {
        if (n.rest || n.cue || n.part !== c.part) continue;
        const key = `${n.measure}|${n.staff}`;
        const bar = bars.get(key);
        if (bar) bar.push(n);
        else bars.set(key, [n]);
      }
      return alteredNotes(c.score)
        .filter((a) => a.note.part === c.part && !a.printed)
        .flatMap((a): Draft[] => {
          const why = missReason(a, bars.get(`${a.note.measure}|${a.note.staff}`) ?? []);
          const tone = why ? toneOf(c, a.note.id) : null;
          return tone
            ? [
                words(
                  `still ${inSigns(pitchName(a.note.pitch!).replace(/-?\d+$/, ''))}`,
                  tone,
                  about('carried accidental', tone, { text: why! })
                )
              ]
            : [];
        });
    }
  },
  {
    id: 'same-on-purpose',
    area: 'text',
    title: 'Ask whether parallel places differ on purpose',
    looksAt: 'Dots, accents and ornaments that stand in one of two places with the same music.',
    proposes: 'A question at the place that lacks them.',
    periods: { baroque: 0.45, classical: 0.5, romantic: 0.5, 'french-1900': 0.5, modern: 0.4 },
    sources: ['common'],
    find: (c) => asInTheParallel(c, ['articulation', 'ornament'])
  },
  {
    id: 'doubtful-slur',
    area: 'text',
    title: 'Ask about a slur that parts a dissonance from its resolution',
    looksAt: 'Slurs that end on an appoggiatura or suspension.',
    proposes: 'A question at the slur’s last note.',
    periods: { baroque: 0.45, classical: 0.5, romantic: 0.45 },
    sources: ['cpebach', 'common'],
    find: (c) => {
      const roles = new Map(c.details.roles.map((r) => [r.note, r.role]));
      return c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        const role = roles.get(t.note.id);
        const ends = k > 0 && next && c.slurred(c.line[k - 1], t) && !c.slurred(t, next);
        return ends && (role === 'appoggiatura' || role === 'suspension') && Math.abs(next.height - t.height) === 1 && next.start === t.end
          ? [words('slur on?', t, about('slur ends on the dissonance', [t, next]))]
          : [];
      });
    }
  }
];
