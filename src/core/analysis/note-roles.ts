import { fifthsPc } from '../score/pitch.ts';
import type { ChordFact, Facts } from './facts.ts';
import { heightOf } from './grid.ts';
import { parseKey } from './keys.ts';
import type { NoteRole } from './roles.ts';
import { levelAt, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';
import { TONES } from './vocabulary.ts';

export interface RoleFact {
  note: string;
  role: NoteRole;
  /** A pillar carries the line; a connecting note is lighter. */
  rank: 'pillar' | 'connecting';
  /** 2 stays in the skeleton of strong beats, 1 in that of all beats, 0 is ornament. */
  level: 0 | 1 | 2;
  chord: string | null;
  /** Set by the instructor. */
  pinned?: true;
}

/** A role that the instructor set; it outweighs what is computed. */
export interface RolePin {
  note: string;
  role: NoteRole;
}

/** Finds the chord at a tick, going forward only. */
class ChordWalk {
  private k = 0;
  private readonly starts: number[];
  private readonly ends: number[];
  private readonly pcs: Set<number>[];

  constructor(
    sounding: SoundingScore,
    private readonly chords: readonly ChordFact[]
  ) {
    this.starts = chords.map((c) => toTicks(sounding, c.start));
    this.ends = chords.map((c) => toTicks(sounding, c.end));
    this.pcs = chords.map((c) => {
      // A cadential six-four stands as the dominant's ornament; its own notes still are the chord that sounds.
      const root = c.cadential ? c.key.tonic : (parseKey(`${c.root} major`)?.tonic ?? 0);
      const quality = c.cadential ? (c.key.minor ? 'min' : 'maj') : c.quality;
      return new Set(TONES[quality].map((t) => fifthsPc(root + t)));
    });
  }

  at(ticks: number): { chord: ChordFact; pcs: Set<number>; start: number } | null {
    while (this.k > 0 && this.starts[this.k] > ticks) this.k--;
    while (this.k + 1 < this.chords.length && this.starts[this.k + 1] <= ticks) this.k++;
    const chord = this.chords[this.k];
    // Where no key fits, no chord is known.
    return chord && ticks >= this.starts[this.k] && ticks < this.ends[this.k]
      ? { chord, pcs: this.pcs[this.k], start: this.starts[this.k] }
      : null;
  }
}

const stepBetween = (a: Tone, b: Tone): number => heightOf(b) - heightOf(a);
const pc = (t: Tone): number => fifthsPc(t.fifths);

/** Role of a note that is foreign to its chord, from how the line reaches and leaves it. */
function foreignRole(tone: Tone, onBeat: boolean, nextInChord: boolean, heldOver: boolean, low: boolean): NoteRole {
  const { previous, next } = tone;
  if (low && previous && next && previous.midi === tone.midi && next.midi === tone.midi) return 'pedal';
  const into = previous ? stepBetween(previous, tone) : null;
  const out = next ? stepBetween(tone, next) : null;
  const stepOut = out !== null && Math.abs(out) === 1;
  if ((heldOver || previous?.midi === tone.midi) && stepOut && (heldOver || onBeat)) return 'suspension';
  if (next && next.midi === tone.midi && nextInChord) return 'anticipation';
  if (into === null || out === null) return onBeat && stepOut ? 'appoggiatura' : 'free';
  if (onBeat && stepOut && Math.abs(into) !== 1) return 'appoggiatura';
  if (Math.abs(into) === 1 && stepOut) {
    if (Math.sign(into) === Math.sign(out)) return 'passing';
    return onBeat && tone.end - tone.start >= (next?.end ?? 0) - (next?.start ?? 0) ? 'appoggiatura' : 'neighbour';
  }
  if (Math.abs(into) === 1) return 'escape';
  if (stepOut) return onBeat ? 'appoggiatura' : 'neighbour';
  return 'free';
}

/** Roles and ranks of all notes; grace notes are ornaments. */
export function noteRoles(sounding: SoundingScore, facts: Facts, pins: readonly RolePin[] = []): RoleFact[] {
  const walk = new ChordWalk(sounding, facts.chords);
  const pinned = new Map(pins.map((p) => [p.note, p.role]));
  const beat = sounding.ticksPerQuarter;
  return sounding.tones.map((tone): RoleFact => {
    const here = walk.at(tone.start);
    const set = pinned.get(tone.note.id);
    if (tone.note.grace) return { note: tone.note.id, role: 'ornament', rank: 'connecting', level: 0, chord: here?.chord.id ?? null };
    const level = levelAt(sounding, tone.start);
    const isMember = here !== null && here.pcs.has(pc(tone));
    // A note held over into a chord that it does not belong to is heard as that chord's suspension.
    const later = walk.at(Math.max(tone.start, tone.end - 1));
    const held = later && here && later.start > tone.start && later.start < tone.end ? later : null;
    const suspended = held !== null && !held.pcs.has(pc(tone)) && tone.next !== null && stepBetween(tone, tone.next) === -1;
    const following = tone.next ? walk.at(tone.next.start) : null;
    let role: NoteRole;
    if (set) role = set;
    else if (suspended) role = 'suspension';
    else if (!here) role = 'free';
    else if (isMember) role = 'chord tone';
    else role = foreignRole(tone, level >= 1, following !== null && following.pcs.has(pc(tone)), false, tone.midi < 55);
    const firm = role === 'chord tone' || role === 'free' || role === 'pedal';
    const long = tone.end - tone.start >= beat;
    const connecting = !firm || (level <= 0 && !long && isBetween(tone));
    const place = level >= 2 ? 2 : level >= 1 || long ? 1 : 0;
    const fact: RoleFact = {
      note: tone.note.id,
      role,
      rank: connecting ? 'connecting' : 'pillar',
      level: connecting ? 0 : (place as 0 | 1 | 2),
      chord: here?.chord.id ?? null
    };
    if (set) fact.pinned = true;
    return fact;
  });
}

/** A short chord tone off the beat that only leads on to the next note. */
const isBetween = (tone: Tone): boolean => Boolean(tone.previous && tone.next);

/**
 * The skeleton of a line: its notes of a level and above, in order. Where a dissonance on the beat is left out,
 * the note into which it resolves stands for it.
 */
export function skeleton(line: readonly Tone[], roles: ReadonlyMap<string, RoleFact>, level: 1 | 2): Tone[] {
  const kept: Tone[] = [];
  line.forEach((tone, k) => {
    const fact = roles.get(tone.note.id);
    if (!fact || tone.note.grace) return;
    if (fact.level >= level) kept.push(tone);
    else if (
      (fact.role === 'appoggiatura' || fact.role === 'suspension') &&
      line[k + 1] &&
      roles.get(line[k + 1].note.id)?.role === 'chord tone'
    )
      if (!kept.includes(line[k + 1])) kept.push(line[k + 1]);
  });
  return kept.filter((t, k) => k === 0 || t !== kept[k - 1]);
}
