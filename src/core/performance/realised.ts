import type { Facts } from '../analysis/facts.ts';
import { soundOf } from '../markings/describe.ts';
import type { Reading } from '../reading/reading.ts';
import { tempoOfReading } from '../reading/in-force.ts';
import { placeName } from '../reading/moments.ts';
import { add, cmp, eq, type Fraction } from '../score/fraction.ts';
import type { Note, Score } from '../score/model.ts';
import { tiedLength } from '../score/ties.ts';
import { QUICKEST_ORNAMENT } from '../style/performance-weights.ts';
import { PROFILES } from '../style/profiles.ts';
import type { SchoolKey } from '../style/schools.ts';
import { FALLBACK_TEMPO } from './playable-score.ts';
import { NotesAsRead } from './as-read.ts';
import { placingOf, realise, type Realisation } from './ornaments.ts';

/** An ornament of the page written out, for the brief and the edition. */
export interface WrittenOrnament {
  note: Note;
  place: string;
  realisation: Realisation;
  /** Whether its notes have the time that they need at this tempo, in a sentence. */
  says: string;
  fits: boolean;
}

/** How the reading answers a question of school at a place. */
function schoolAt(reading: Reading, key: SchoolKey, at: Fraction): string | undefined {
  const local = reading.localAnswers.findLast((a) => a.key === key && cmp(a.from, at) <= 0 && cmp(at, a.to) < 0);
  return local?.option ?? reading.schools[key]?.option ?? PROFILES[reading.period].schools[key];
}

/** The ornaments of one part in some bars (measure indices, both included) as they are played in this reading. */
export function ornamentsIn(score: Score, facts: Facts, reading: Reading, from: number, to: number): WrittenOrnament[] {
  const { part } = reading;
  const asRead = new NotesAsRead(reading.markings);
  const notes = score.notes.filter((n) => n.part === part && n.measure >= from && n.measure <= to && !n.cue).map((n) => asRead.note(n));
  const waiting = new Map<string, Note[]>();
  const found: WrittenOrnament[] = [];
  for (const note of notes) {
    const voice = `${note.staff}|${note.voice}`;
    if (note.rest || !note.pitch) continue;
    if (note.grace) {
      waiting.set(voice, [...(waiting.get(voice) ?? []), note]);
      continue;
    }
    if (note.chord) continue;
    const graces = waiting.get(voice) ?? [];
    waiting.delete(voice);
    if (!graces.length && !note.marks?.some((m) => m.group === 'ornament')) continue;
    const length = tiedLength(score, note);
    const end = add(note.start, length);
    const next =
      score.notes.find((n) => n.part === part && n.staff === note.staff && n.voice === note.voice && !n.grace && eq(n.start, end)) ?? null;
    const tempo = tempoOfReading(score, reading.markings, note.start) ?? FALLBACK_TEMPO;
    const school = {
      trillStart: schoolAt(reading, 'trill-start', note.start) === 'main' ? ('main' as const) : ('upper' as const),
      appoggiatura: schoolAt(reading, 'appoggiatura', note.start) === 'long' ? ('long' as const) : ('short' as const),
      placing: placingOf(schoolAt(reading, 'pipe-placing', note.start)),
      words: reading.markings.flatMap((m) => (m.note === note.id ? (soundOf(m).words ?? []) : []))
    };
    const realisation = realise(score, facts, note, length, tempo, school, graces, next);
    if (!realisation) continue;
    const fits = realisation.shortest >= QUICKEST_ORNAMENT;
    const ms = Math.round(1000 * realisation.shortest);
    found.push({
      note,
      place: placeName(score, note.start),
      realisation,
      fits,
      says: `${realisation.says}: ${realisation.notes.length} notes, the shortest ${ms} ms at ♩ = ${Math.round(tempo)}${fits ? '' : '; too quick to be heard apart'}`
    });
  }
  return found;
}
