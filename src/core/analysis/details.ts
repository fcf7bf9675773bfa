import { lazily } from '../once.ts';
import type { Analysis } from './analyse.ts';
import type { Facts } from './facts.ts';
import type { Pin } from './pins.ts';
import { gestures, type GestureFact } from './gestures.ts';
import { harmonicRhythm, harmonicRhythmFacts, type HarmonicRhythmBar, type HarmonicRhythmFact } from './harmonic-rhythm.ts';
import { findMotives, type MotiveFact } from './motives.ts';
import { noteRoles, type RoleFact } from './note-roles.ts';
import { hypermeter, phraseGroups, phraseLengths, type PhraseGroupFact, type PhraseLength } from './phrase-groups.ts';
import { rhythmFacts, type RhythmFact } from './rhythm-facts.ts';
import { findLines, findStreams, type LineFact, type StreamFact } from './streams.ts';
import type { Comparison } from './structure.ts';
import { findSuspects, type SuspectFact } from './suspects.ts';
import type { Tone } from './sounding-score.ts';

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

/**
 * Everything beyond the facts: roles of notes, harmonic rhythm, groups of phrases, motives, hidden voices and lines, rhythm,
 * suspect notes, gestures. Each kind is looked for when it is asked for: the first page of an edition needs few of them.
 */
export function details(analysis: Pick<Analysis, 'score' | 'sounding' | 'comparison'>, facts: Facts, pins: readonly Pin[] = []): Details {
  const { score } = analysis;
  const dismissed = new Set(pins.flatMap((p) => (p.kind === 'dismiss' ? [p.fact] : [])));
  const roles = pins.flatMap((p) => (p.kind === 'role' ? [p] : []));
  const voices = new Map(pins.flatMap((p) => (p.kind === 'voice' ? [[p.note, p.voice] as const] : [])));
  return lazily<Details>({
    roles: () => noteRoles(analysis.sounding, facts, roles),
    harmonicRhythm: () => harmonicRhythm(score, facts),
    harmonicRhythmFacts: () => harmonicRhythmFacts(score, facts),
    groups: () => phraseGroups(score, analysis.sounding, facts, analysis.comparison),
    lengths: () => phraseLengths(score, facts),
    hypermeter: () => hypermeter(score, facts),
    motives: () => findMotives(analysis.sounding, facts.phrases).filter((m) => !dismissed.has(m.id)),
    streams: () => findStreams(analysis.sounding, voices),
    lines: () => findLines(analysis.sounding, bassLine(analysis.comparison)),
    rhythms: () => rhythmFacts(score, analysis.sounding, facts.parallels),
    suspects: () => findSuspects(score, analysis.sounding, facts).filter((x) => !dismissed.has(`suspect-${x.note}`)),
    gestures: () => gestures(score, analysis.sounding, facts, analysis.comparison.beats, analysis.comparison.bar)
  });
}
