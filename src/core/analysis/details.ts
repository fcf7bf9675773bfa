import type { Score } from '../score/model.ts';
import type { Facts, Pin } from './facts.ts';
import { gestures, type GestureFact } from './gestures.ts';
import { harmonicRhythm, harmonicRhythmFacts, type HarmonicRhythmBar, type HarmonicRhythmFact } from './harmonic-rhythm.ts';
import { findMotives, type MotiveFact } from './motives.ts';
import { noteRoles, type RoleFact } from './note-roles.ts';
import { hypermeter, phraseGroups, phraseLengths, type PhraseGroupFact, type PhraseLength } from './phrase-groups.ts';
import { rhythmFacts, type RhythmFact } from './rhythm-facts.ts';
import { findLines, findStreams, type LineFact, type StreamFact } from './streams.ts';
import type { Comparison } from './structure.ts';
import { findSuspects, type SuspectFact } from './suspects.ts';
import type { Texture, Tone } from './texture.ts';

/** What a closer look finds, on the ground of the facts; worked out when it is asked for and never stored. */
export interface Details {
  roles: RoleFact[];
  harmonicRhythm: HarmonicRhythmBar[];
  harmonicRhythmFacts: HarmonicRhythmFact[];
  groups: PhraseGroupFact[];
  lengths: PhraseLength[];
  hypermeter: { strong: 0 | 1; evidence: string } | null;
  motives: MotiveFact[];
  streams: StreamFact[];
  lines: LineFact[];
  rhythms: RhythmFact[];
  suspects: SuspectFact[];
  gestures: GestureFact[];
}

/** The bass as a line: what sounds lowest at each beat, each note once. */
export function bassLine(comparison: Comparison): Tone[] {
  const line: Tone[] = [];
  for (const b of comparison.beats) if (b.bass && b.bass !== b.lead && b.bass !== line.at(-1)) line.push(b.bass);
  return line;
}

/** Everything beyond the facts: roles of notes, harmonic rhythm, groups of phrases, motives, hidden voices and lines, rhythm, suspect notes, gestures. */
export function details(score: Score, texture: Texture, facts: Facts, comparison: Comparison, pins: readonly Pin[] = []): Details {
  const dismissed = new Set(pins.flatMap((p) => (p.kind === 'dismiss' ? [p.fact] : [])));
  return {
    roles: noteRoles(
      texture,
      facts,
      pins.flatMap((p) => (p.kind === 'role' ? [p] : []))
    ),
    harmonicRhythm: harmonicRhythm(score, facts),
    harmonicRhythmFacts: harmonicRhythmFacts(score, facts),
    groups: phraseGroups(score, texture, facts, comparison),
    lengths: phraseLengths(score, facts),
    hypermeter: hypermeter(score, facts),
    motives: findMotives(texture, facts.phrases).filter((m) => !dismissed.has(m.id)),
    streams: findStreams(texture, new Map(pins.flatMap((p) => (p.kind === 'voice' ? [[p.note, p.voice] as const] : [])))),
    lines: findLines(texture, bassLine(comparison)),
    rhythms: rhythmFacts(score, texture, facts.parallels),
    suspects: findSuspects(score, texture, facts).filter((x) => !dismissed.has(`suspect-${x.note}`)),
    gestures: gestures(score, texture, facts, comparison.beats, comparison.bar)
  };
}
