import { eq, mul } from '../../score/fraction.ts';
import { inSigns, valueWords } from '../../analysis/words.ts';
import { neighbourOf } from '../../analysis/neighbours.ts';
import { levelAt, type Tone } from '../../analysis/sounding-score.ts';
import { pitchName } from '../../score/pitch.ts';
import type { RuleContext } from '../context.ts';
import { APPOGGIATURA_SHARE, TRILL_RATE } from '../../style/ornaments.ts';
import { PLAYER_WORDS } from '../../style/player-words.ts';
import { about, hasMark, oncePerSection, quarters, seconds, term, words } from './find.ts';
import type { Draft, Rule } from './rule.ts';

const trills = (c: RuleContext): Tone[] => c.line.filter((t) => hasMark(t, /^trill-mark$/));

/** The upper and lower neighbour of a note in the key of its place, by name. */
function neighbours(c: RuleContext, t: Tone): { names: string; altered: boolean } {
  const both = [1, -1].map((by) => neighbourOf(c.score, c.facts, t.note, by));
  const names = both.map((n) => (n ? pitchName(n.pitch).replace(/-?\d+$/, '') : '')).join(' and ');
  return { names: inSigns(names), altered: both.some((n) => n?.altered) };
}

/** Rules for ornaments: start, endings, what fits at this tempo. Handbook 8. */
export const ORNAMENTS: Rule[] = [
  {
    id: 'where-the-trill-begins',
    area: 'ornaments',
    title: 'Say on which note a trill begins',
    looksAt: 'Printed trills.',
    proposes: '“from above” or “from the main note”, by school.',
    periods: { baroque: 0.7, classical: 0.6, romantic: 0.55, modern: 0.4 },
    sources: ['cpebach', 'hummel', 'spohr'],
    find: (c) => {
      const text = (PLAYER_WORDS.trillFrom as Record<string, string>)[c.schools['trill-start'] ?? ''];
      // Said over the first; what holds for all others stands in the commentary.
      return text ? trills(c).map((t, k) => (k ? words : term)(text, t, about('trill', t))) : [];
    }
  },
  {
    id: 'the-trill-fits-the-rhythm',
    area: 'ornaments',
    title: 'The trill fits the rhythm, never the rhythm the trill',
    looksAt: 'Trills that leave time for fewer than four notes at this tempo.',
    proposes: 'One flick.',
    periods: { baroque: 0.6, classical: 0.65, romantic: 0.65, 'french-1900': 0.7, modern: 0.5 },
    sources: ['cpebach', 'hummel'],
    find: (c) =>
      trills(c).flatMap((t): Draft[] => {
        const time = seconds(c, t);
        // Two notes to an alternation.
        const notes = time === null ? null : Math.floor(2 * TRILL_RATE.most * time);
        return notes !== null && notes < 4
          ? [
              {
                kind: 'advice',
                value: PLAYER_WORDS.flick,
                at: t,
                fact: about('room for notes', t, { count: notes, text: String(TRILL_RATE.most) })
              }
            ]
          : [];
      })
  },
  {
    id: 'ending-of-the-trill',
    area: 'ornaments',
    title: 'A trill that rises has its ending',
    looksAt: 'Trills of a quarter or longer before a note a step higher, without written small notes.',
    proposes: 'Words: with an ending from below.',
    periods: { baroque: 0.5, classical: 0.6, romantic: 0.5 },
    sources: ['cpebach', 'hummel'],
    find: (c) =>
      trills(c).flatMap((t): Draft[] => {
        const next = t.next;
        const rises = next && next.midi - t.midi > 0 && next.midi - t.midi <= 2;
        const written = c.score.notes.some(
          (n) => n.grace && n.part === t.note.part && next && n.start.n === next.note.start.n && n.start.d === next.note.start.d
        );
        return rises && !written && quarters(c, t) >= 1 ? [words(PLAYER_WORDS.ending, t, about('trill leads up', [t, next]))] : [];
      })
  },
  {
    id: 'length-of-the-appoggiatura',
    area: 'ornaments',
    title: 'The long appoggiatura takes half of a plain note, two thirds of a dotted one',
    looksAt: 'Small notes without a stroke a step from a longer note, where the school says “long”.',
    proposes: 'The exact value that the small note takes.',
    periods: { baroque: 0.7, classical: 0.65 },
    sources: ['quantz', 'cpebach', 'lmozart'],
    find: (c) => {
      if (c.schools.appoggiatura !== 'long') return [];
      return c.line.flatMap((t): Draft[] => {
        const graces = c.score.notes.filter(
          (n) =>
            n.grace &&
            !n.cue &&
            n.part === t.note.part &&
            n.staff === t.note.staff &&
            n.start.n === t.note.start.n &&
            n.start.d === t.note.start.d
        );
        if (graces.length !== 1 || graces[0].grace!.slash || quarters(c, t) < 0.5) return [];
        const share = t.note.dots ? APPOGGIATURA_SHARE.dotted : APPOGGIATURA_SHARE.plain;
        return [words(`takes ${valueWords(mul(t.note.duration, share))}`, t, about('small note before', t))];
      });
    }
  },
  {
    id: 'short-small-notes',
    area: 'ornaments',
    title: 'Small notes are crushed in',
    looksAt: 'Small notes with a stroke, or all of them where the school says “short”.',
    proposes: 'Words at the first of each kind.',
    periods: { classical: 0.4, romantic: 0.5, 'french-1900': 0.5, modern: 0.4 },
    sources: ['hummel'],
    find: (c) => {
      const all = c.schools.appoggiatura === 'short';
      const grace = c.score.notes.find((n) => n.grace && n.part === c.part && (all || n.grace.slash));
      const tone =
        grace && c.tonesIn(grace.measure).find((t) => !t.note.grace && t.note.staff === grace.staff && eq(t.note.start, grace.start));
      return tone
        ? [words(PLAYER_WORDS.shortSmallNotes, tone, about('small notes', tone, grace.grace!.slash ? { text: 'with a stroke' } : {}))]
        : [];
    }
  },
  {
    id: 'the-turn-comes-late',
    area: 'ornaments',
    title: 'A turn on a long note comes late',
    looksAt: 'Turns on dotted notes or notes of a half and longer.',
    proposes: 'Words: in the last part of the note.',
    periods: { classical: 0.5, romantic: 0.55 },
    sources: ['cpebach', 'hummel'],
    find: (c) =>
      c.line
        .filter((t) => hasMark(t, /^turn$/) && (t.note.dots || quarters(c, t) >= 2))
        .map((t) => words(PLAYER_WORDS.lateTurn, t, about('turn on a long note', t)))
  },
  {
    id: 'decorate-the-repeat',
    area: 'ornaments',
    title: 'Decorate the second time',
    looksAt: 'Repeated strains, where the school says “ornament”: thirds between longer notes and long notes.',
    proposes: 'A passing note or a turn the second time, at most one in a bar and none on the last note.',
    periods: { baroque: 0.5 },
    sources: ['quantz', 'cpebach'],
    find: (c) => {
      if (c.schools.repeats !== 'ornament') return [];
      const repeated = new Set<number>();
      let from = 0;
      for (const m of c.score.measures) {
        if (m.repeatStart) from = m.index;
        if (m.repeatEnd) for (let k = from; k <= m.index; k++) repeated.add(k);
        if (m.repeatEnd) from = m.index + 1;
      }
      const used = new Set<number>();
      return c.line.flatMap((t, k): Draft[] => {
        const next = c.line[k + 1];
        if (!next || !repeated.has(t.note.measure) || used.has(t.note.measure) || t.note.measure % 2 === 0) return [];
        const third = Math.abs(next.midi - t.midi) >= 3 && Math.abs(next.midi - t.midi) <= 4 && next.start === t.end;
        if (!third || quarters(c, t) < 1 || t.note.marks?.length) return [];
        used.add(t.note.measure);
        return [words(PLAYER_WORDS.fillTheThird, t, about('third between', [t, next]))];
      });
    }
  },
  {
    id: 'accidental-of-the-turn',
    area: 'ornaments',
    title: 'A sign at a turn names the note that it alters',
    looksAt: 'Turns and mordents whose neighbour note has another alteration in the key of the place than in the signature.',
    proposes: 'Words with the neighbour notes by name.',
    periods: { baroque: 0.5, classical: 0.6, romantic: 0.6, 'french-1900': 0.6 },
    sources: ['cpebach'],
    find: (c) =>
      c.line.flatMap((t): Draft[] => {
        if (!hasMark(t, /turn|mordent/)) return [];
        const notes = neighbours(c, t);
        return notes.altered ? [words(`with ${notes.names}`, t, about('neighbour altered', t))] : [];
      })
  },
  {
    id: 'the-line-under-the-ornament',
    area: 'ornaments',
    title: 'A written-out ornament is led by its pillar',
    looksAt: 'Five and more quick notes in a beat that circle around one note.',
    proposes: 'Words at the pillar, once in each section.',
    periods: { baroque: 0.5, classical: 0.5, romantic: 0.55, 'french-1900': 0.5 },
    sources: ['common'],
    find: (c) => {
      const groups = c.line.flatMap((t, k) => {
        const five = c.line.slice(k, k + 5);
        const circles =
          five.length === 5 &&
          levelAt(c.sounding, t.start) >= 1 &&
          five.every((x) => quarters(c, x) <= 0.25 && Math.abs(x.height - t.height) <= 1) &&
          new Set(five.map((x) => x.height)).size >= 2;
        return circles ? [five] : [];
      });
      return oncePerSection(c, groups, ([t]) => t.note.start).map((five) =>
        words(`around ${inSigns(pitchName(five[0].note.pitch!).replace(/-?\d+$/, ''))}`, five[0], about('circling', five))
      );
    }
  }
];
