import type { Score } from '../score/model.ts';
import { fifthsName } from '../score/pitch.ts';
import { CADENCE } from '../style/form-weights.ts';
import { factId, type CadenceFact, type CadenceType, type ChordFact } from './facts.ts';
import { keyName, parseKey, sameKey, type Key } from './keys.ts';
import { firstFrom, levelAt, toTicks, type Texture } from './texture.ts';

/** A harmonic step that could be a cadence, before it is known where phrases end. */
export interface CadenceCandidate {
  type: CadenceType;
  /** Arrival in ticks, and the end of the goal chord. */
  at: number;
  until: number;
  score: number;
  from: ChordFact;
  to: ChordFact;
  evidence: string[];
}

/** Ticks at which a section ends: repeats, double and final bar lines, endings. */
export function sectionEnds(score: Score, texture: Texture): number[] {
  const ends: number[] = [];
  score.measures.forEach((m, k) => {
    const next = score.measures[k + 1];
    const closes = m.repeatEnd || m.fine || m.barline === 'light-light' || m.barline === 'light-heavy' || next?.repeatStart || !next;
    if (closes) ends.push(next ? texture.measureStarts[k + 1] : texture.totalTicks);
  });
  return ends;
}

/** How firmly the melody comes to rest on or just after a tick: 0 not at all, 1 a long note or a rest. */
function stopAt(texture: Texture, at: number, until: number, usual: number): number {
  const { melody } = texture;
  let best = 0;
  for (let k = Math.max(0, firstFrom(melody, at) - 1); k < melody.length; k++) {
    const tone = melody[k];
    if (tone.end <= at) continue;
    if (tone.start >= until && tone.start > at) break;
    const next = melody[k + 1];
    const span = (next ? next.start : texture.totalTicks) - Math.max(tone.start, at);
    best = Math.max(best, Math.min(1, Math.max(0, span / usual - 1)));
  }
  return best;
}

/** Usual distance between the melody's notes: its median. */
export function usualInterval(texture: Texture): number {
  const gaps: number[] = [];
  for (let k = 0; k + 1 < texture.melody.length; k++) gaps.push(texture.melody[k + 1].start - texture.melody[k].start);
  gaps.sort((a, b) => a - b);
  return gaps[gaps.length >> 1] || texture.ticksPerQuarter;
}

/** All harmonic steps that may close something. */
export function cadenceCandidates(score: Score, texture: Texture, chords: ChordFact[]): CadenceCandidate[] {
  const ends = sectionEnds(score, texture);
  const usual = usualInterval(texture);
  const candidates: CadenceCandidate[] = [];
  for (let k = 1; k < chords.length; k++) {
    const to = chords[k];
    const from = chords[k - 1];
    if (from.root === to.root && from.role === to.role) continue;
    const type = stepType(from, to);
    if (!type) continue;
    const at = toTicks(texture, to.start);
    // The goal may go on in another position or with its seventh.
    let last = k;
    while (last + 1 < chords.length && chords[last + 1].root === to.root && chords[last + 1].role === to.role) last++;
    const until = toTicks(texture, chords[last].end);
    candidates.push(weigh(texture, chords, k, type, at, until, usual, ends));
  }
  return candidates;
}

function stepType(from: ChordFact, to: ChordFact): CadenceType | null {
  const same = sameKey(from.key, to.key) || from.key.tonic === to.key.tonic;
  if (!same) return null;
  // An applied dominant may close a phrase in the key of its goal.
  if (from.applied && isGoal(from, to)) return 'PAC';
  if (from.role === 'dominant' && !from.cadential) {
    if (to.role === 'tonic') return 'PAC';
    if (to.role === 'submediant' && /^(vi|VI|bVI)/.test(to.roman)) return 'DC';
    return null;
  }
  if (to.role === 'dominant' && /^V(64)?$/.test(to.roman)) return 'HC';
  if (to.role === 'tonic' && from.role === 'predominant' && /^(IV|iv)$/.test(from.roman)) return 'PC';
  return null;
}

/** True when a chord is what the applied dominant before it points to. */
const isGoal = (from: ChordFact, to: ChordFact): boolean => from.roman.endsWith(`/${to.roman.replace(/[\d%]+$/, '')}`);

/** Key in which a step closes: its own, or that of an applied dominant's goal. */
function closingKey(from: ChordFact, to: ChordFact): Key {
  if (!from.applied) return to.key;
  return { tonic: parseKey(`${to.root} major`)!.tonic, minor: to.quality === 'min' || to.quality === 'min7' };
}

function weigh(
  texture: Texture,
  chords: ChordFact[],
  k: number,
  type: CadenceType,
  at: number,
  until: number,
  usual: number,
  ends: number[]
): CadenceCandidate {
  const C = CADENCE;
  const from = chords[k - 1];
  const to = chords[k];
  const evidence: string[] = [`${from.roman} to ${to.roman} in ${keyName(to.key)}`];
  let score = C.arrival[Math.max(0, levelAt(texture, at))];
  const stop = stopAt(texture, at, until, usual * 1.5);
  score += C.stop * stop;
  if (stop > 0.6) evidence.push('the line comes to rest');
  const sectionEnd = ends.some((e) => e >= at && e <= until + texture.ticksPerQuarter / 4);
  if (sectionEnd) {
    score += C.sectionEnd;
    evidence.push('a section ends');
  }
  const before = chords[k - 2];
  const line = texture.singleLine;
  let kind = type;
  if (type === 'PAC') {
    if (from.applied) score += C.applied;
    if (from.roman.startsWith('vii')) score += C.leadingChord;
    else score += from.inversion === 0 || line ? C.dominantRoot : C.dominantInverted;
    score += to.inversion === 0 || line ? C.goalRoot : C.goalInverted;
    const start = before && before.root === from.root ? chords[k - 3] : before;
    if (before?.cadential || start?.role === 'predominant' || start?.role === 'colour') {
      score += C.prepared;
      evidence.push(`prepared by ${(start ?? before).roman}`);
    }
    const soprano = sopranoIn(texture, at, until);
    if (soprano === to.root) score += C.sopranoTonic;
    const perfect = soprano === to.root && (line || (from.inversion === 0 && to.inversion === 0)) && from.roman.startsWith('V');
    kind = perfect ? 'PAC' : 'IAC';
  } else if (type === 'HC') {
    score += C.halfBase + (to.inversion === 0 ? C.goalRoot : C.goalInverted);
    if (from.role === 'predominant' || from.role === 'colour' || from.applied || to.cadential) score += C.prepared;
  } else if (type === 'DC') {
    score += C.deceptiveBase + (from.inversion === 0 ? C.dominantRoot : C.dominantInverted);
    if (before?.role === 'predominant' || before?.cadential) score += C.prepared;
  } else score += C.plagalBase + (to.inversion === 0 ? C.goalRoot : C.goalInverted);
  return { type: kind, at, until, score, from, to, evidence };
}

/** Spelled name of the melody note that stands at the arrival: the one at it, or the last that resolves into the chord early. */
function sopranoIn(texture: Texture, at: number, until: number): string | null {
  const window = Math.min(until, at + 2 * texture.ticksPerQuarter);
  const inside = texture.melody
    .slice(Math.max(0, firstFrom(texture.melody, at) - 1), firstFrom(texture.melody, window))
    .filter((t) => t.end > at);
  if (!inside.length) return null;
  const first = inside[0];
  const longest = inside.reduce((a, b) => (b.end - b.start > a.end - a.start ? b : a));
  return fifthsName((texture.singleLine ? first : longest).fifths);
}

/** The candidates that are cadences, now that the phrase ends are known (in ticks). */
export function chooseCadences(texture: Texture, candidates: CadenceCandidate[], phraseEnds: number[]): CadenceFact[] {
  const facts: CadenceFact[] = [];
  for (const c of candidates) {
    const ends = phraseEnds.some((e) => e > c.at && e <= c.until + texture.ticksPerQuarter);
    const score = c.score + (ends ? CADENCE.phraseEnd : 0);
    if (score < CADENCE.threshold) continue;
    // Where the line has paused just before, the goal chord opens something new and closes nothing.
    const opening = firstFrom(texture.melody, c.at);
    const pausedBefore = opening > 0 && texture.melody[opening]?.start === c.at && texture.melody[opening - 1].end < c.at;
    if (pausedBefore && c.type !== 'HC') continue;
    // A half cadence needs the phrase to end there; elsewhere the dominant is on its way.
    if ((c.type === 'HC' || c.type === 'PC') && !ends) continue;
    facts.push({
      id: factId('cadence', c.to.start),
      start: c.to.start,
      type: c.type,
      key: closingKey(c.from, c.to),
      from: c.from.id,
      to: c.to.id,
      confidence: Math.round(100 / (1 + Math.exp(-1.6 * (score - CADENCE.threshold) - 0.4))) / 100,
      evidence: [...c.evidence, ...(ends ? ['a phrase ends'] : [])].join('; ')
    });
  }
  return facts;
}
