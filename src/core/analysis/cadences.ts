import { cmp } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { fifthsName } from '../score/pitch.ts';
import { CADENCE } from '../style/form-weights.ts';
import { confidenceOf } from './confidence.ts';
import { factId, type CadenceFact, type CadenceType, type ChordFact } from './facts.ts';
import { keyName, parseKey, sameKey, type Key } from './keys.ts';
import { firstFrom, levelAt, slotIndexAt, toTicks, type SoundingScore, type Tone } from './sounding-score.ts';

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
export function sectionEnds(score: Score, sounding: SoundingScore): number[] {
  const ends: number[] = [];
  score.measures.forEach((m, k) => {
    const next = score.measures[k + 1];
    const closes = m.repeatEnd || m.fine || m.barline === 'light-light' || m.barline === 'light-heavy' || next?.repeatStart || !next;
    if (closes) ends.push(next ? sounding.measureStarts[k + 1] : sounding.totalTicks);
  });
  return ends;
}

/** How firmly the melody comes to rest on or just after a tick: 0 not at all, 1 a long note or a rest. */
function stopAt(sounding: SoundingScore, at: number, until: number, usual: number): number {
  const { melody } = sounding;
  let best = 0;
  for (let k = Math.max(0, firstFrom(melody, at) - 1); k < melody.length; k++) {
    const tone = melody[k];
    if (tone.end <= at) continue;
    if (tone.start >= until && tone.start > at) break;
    const next = melody[k + 1];
    const span = (next ? next.start : sounding.totalTicks) - Math.max(tone.start, at);
    best = Math.max(best, Math.min(1, Math.max(0, span / usual - 1)));
  }
  return best;
}

/** Usual distance between the melody's notes: its median. */
export function usualInterval(sounding: SoundingScore): number {
  const gaps: number[] = [];
  for (let k = 0; k + 1 < sounding.melody.length; k++) gaps.push(sounding.melody[k + 1].start - sounding.melody[k].start);
  gaps.sort((a, b) => a - b);
  return gaps[gaps.length >> 1] || sounding.ticksPerQuarter;
}

/** All harmonic steps that may close something; `basses` are the notes that count as the bass, slot by slot. */
export function cadenceCandidates(
  score: Score,
  sounding: SoundingScore,
  chords: ChordFact[],
  basses: readonly (Tone | null)[]
): CadenceCandidate[] {
  const ends = sectionEnds(score, sounding);
  const usual = usualInterval(sounding);
  const candidates: CadenceCandidate[] = [];
  for (let k = 1; k < chords.length; k++) {
    const to = chords[k];
    const from = chords[k - 1];
    if (from.root === to.root && from.role === to.role) continue;
    // A dominant over the tonic held below confirms a close that has been; it makes none.
    if (from.pedal && from.bass === to.root) continue;
    // Between them lies music without a key.
    if (cmp(from.end, to.start) !== 0) continue;
    const type = evades(chords, k) ? 'EC' : stepType(from, to);
    if (!type) continue;
    const at = toTicks(sounding, to.start);
    // The goal may go on in another position or with its seventh.
    let last = k;
    while (last + 1 < chords.length && chords[last + 1].root === to.root && chords[last + 1].role === to.role) last++;
    const until = toTicks(sounding, chords[last].end);
    candidates.push(weigh(sounding, basses, chords, k, type, at, until, usual, ends));
  }
  return candidates;
}

function stepType(from: ChordFact, to: ChordFact): CadenceType | null {
  const same = sameKey(from.key, to.key) || from.key.tonic === to.key.tonic;
  // Where the key changes in the close itself, it is read in the key of its goal.
  if (!same) return to.role === 'tonic' && leadsTo(from, to) ? 'PAC' : null;
  // The dominant of the dominant leads to a half close; another applied dominant may close in the key of its goal.
  if (from.applied && isGoal(from, to)) return to.role === 'dominant' ? 'HC' : 'PAC';
  if (from.role === 'dominant' && !from.cadential) {
    if (to.role === 'tonic') return 'PAC';
    if (to.role === 'submediant' && /^(vi|VI|bVI)/.test(to.roman)) return 'DC';
    return null;
  }
  if (to.role === 'dominant' && /^V(64|7)?$/.test(to.roman)) return 'HC';
  if (to.role === 'tonic' && from.role === 'predominant' && /^(IV|iv)$/.test(from.roman)) return 'PC';
  return null;
}

const place = (chord: ChordFact): number => parseKey(`${chord.root} major`)?.tonic ?? NaN;

/** True for a major chord or dominant seventh a fifth above the chord after it. */
const leadsTo = (from: ChordFact, to: ChordFact): boolean => place(from) - place(to) === 1 && ['maj', 'dom7'].includes(from.quality);

/** Chords within which an evaded close is made good. */
const MADE_GOOD = 8;

/**
 * True for a dominant that is prepared as for a close and goes to the tonic's first inversion, where the close that it promised
 * comes soon after. Source: Caplin, Classical Form, 1998, ch. 8 (evaded cadence).
 */
function evades(chords: readonly ChordFact[], k: number): boolean {
  const [from, to] = [chords[k - 1], chords[k]];
  if (to.role !== 'tonic' || to.inversion !== 1 || !sameKey(from.key, to.key)) return false;
  // The dominant may pass through its seventh in the bass.
  const first = from.inversion === 3 && chords[k - 2]?.root === from.root ? k - 2 : k - 1;
  const dominant = chords[first];
  const before = chords[first - 1];
  if (!dominant?.roman.startsWith('V') || dominant.role !== 'dominant' || dominant.cadential || dominant.inversion !== 0) return false;
  if (!before || !(before.cadential || before.role === 'predominant' || before.role === 'colour')) return false;
  for (let i = k + 1; i < Math.min(chords.length, k + MADE_GOOD); i++) {
    const [v, goal] = [chords[i - 1], chords[i]];
    if (goal.role === 'tonic' && goal.inversion === 0 && v.role === 'dominant' && v.inversion === 0 && v.roman.startsWith('V'))
      return sameKey(goal.key, to.key);
  }
  return false;
}

/** True when a chord is what the applied dominant before it points to. */
const isGoal = (from: ChordFact, to: ChordFact): boolean => from.roman.endsWith(`/${to.roman.replace(/[\d%]+$/, '')}`);

/** Key in which a step closes: its own, or that of an applied dominant's goal. */
function closingKey(from: ChordFact, to: ChordFact, type: CadenceType): Key {
  if (!from.applied || type === 'HC') return to.key;
  return { tonic: parseKey(`${to.root} major`)!.tonic, minor: to.quality === 'min' || to.quality === 'min7' };
}

function weigh(
  sounding: SoundingScore,
  basses: readonly (Tone | null)[],
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
  let score = C.arrival[Math.max(0, levelAt(sounding, at))];
  const stop = stopAt(sounding, at, until, usual * 1.5);
  score += C.stop * stop;
  if (stop > 0.6) evidence.push('the line comes to rest');
  const sectionEnd = ends.some((e) => e >= at && e <= until + sounding.ticksPerQuarter / 4);
  if (sectionEnd) {
    score += C.sectionEnd;
    evidence.push('a section ends');
  }
  const before = chords[k - 2];
  const line = sounding.singleLine;
  // What counts is the bass on which the dominant leaves, not the one on which it came.
  const rootBefore = from.inversion === 0 || lastBass(sounding, basses, at) === from.root;
  let kind = type;
  if (type === 'EC') {
    score += C.evadedBase + C.prepared;
    evidence.push('the close that was prepared is put off');
  } else if (type === 'PAC') {
    if (from.applied) score += C.applied + (isPrepared(before, to) || sectionEnd ? 0 : C.unprepared);
    if (from.roman.startsWith('vii')) score += C.leadingChord;
    else score += rootBefore || line ? C.dominantRoot : C.dominantInverted;
    score += to.inversion === 0 || line ? C.goalRoot : C.goalInverted;
    const start = before && before.root === from.root ? chords[k - 3] : before;
    if (before?.cadential || start?.role === 'predominant' || start?.role === 'colour') {
      score += C.prepared;
      evidence.push(`prepared by ${(start ?? before).roman}`);
    }
    const soprano = sopranoIn(sounding, at, until);
    if (soprano === to.root) score += C.sopranoTonic;
    const perfect = soprano === to.root && (line || (rootBefore && to.inversion === 0)) && from.roman.startsWith('V');
    kind = perfect ? 'PAC' : 'IAC';
  } else if (type === 'HC') {
    // The dominant may come in another position and stop in root position.
    const root = to.inversion === 0 || lastBass(sounding, basses, until) === to.root;
    score += C.halfBase + (root ? C.goalRoot : C.goalInverted);
    if (from.role === 'predominant' || from.role === 'colour' || from.applied || to.cadential) score += C.prepared;
    if (to.roman === 'V7') score += C.halfOnSeventh;
    // Where the dominant of the dominant closes a whole section, its goal has become the key.
    if (from.applied && sectionEnd && sopranoIn(sounding, at, until) === to.root) kind = 'PAC';
  } else if (type === 'DC') {
    score += C.deceptiveBase + (from.inversion === 0 ? C.dominantRoot : C.dominantInverted);
    if (before?.role === 'predominant' || before?.cadential) score += C.prepared;
  } else score += C.plagalBase + (to.inversion === 0 ? C.goalRoot : C.goalInverted);
  return { type: kind, at, until, score, from, to, evidence };
}

/** True when the chord before an applied dominant prepares its goal as a key: its second or fourth degree, or its six-four. */
function isPrepared(before: ChordFact | undefined, goal: ChordFact): boolean {
  if (!before) return false;
  const step = place(before) - place(goal);
  return step === 2 || step === -1 || before.special !== null || (step === 0 && before.inversion === 2);
}

/** Spelled name of the bass as it is understood just before a moment: of a broken chord its lowest note, not its last. */
function lastBass(sounding: SoundingScore, basses: readonly (Tone | null)[], at: number): string | null {
  const bass = basses[(at >= sounding.totalTicks ? sounding.slots.length : slotIndexAt(sounding, at)) - 1];
  return bass ? fifthsName(bass.fifths) : null;
}

/** Spelled name of the melody note that stands at the arrival: the one at it, or the last that resolves into the chord early. */
function sopranoIn(sounding: SoundingScore, at: number, until: number): string | null {
  const window = Math.min(until, at + 2 * sounding.ticksPerQuarter);
  const inside = sounding.melody
    .slice(Math.max(0, firstFrom(sounding.melody, at) - 1), firstFrom(sounding.melody, window))
    .filter((t) => t.end > at);
  if (!inside.length) return null;
  const first = inside[0];
  const longest = inside.reduce((a, b) => (b.end - b.start > a.end - a.start ? b : a));
  return fifthsName((sounding.singleLine ? first : longest).fifths);
}

/** A phrase as its melody marks it, in ticks: first note, last note, where the next phrase begins. */
export interface PhraseTicks {
  start: number;
  last: number;
  end: number;
  /** The next phrase begins as this one, or an earlier one, did. */
  answered: boolean;
}

/**
 * The candidates that are cadences, now that the phrases are known. A cadence is where a phrase ends: each phrase
 * has at most one, the best whose goal sounds under its last note. Inside a phrase only the firmest close counts.
 */
export function chooseCadences(sounding: SoundingScore, candidates: CadenceCandidate[], phrases: readonly PhraseTicks[]): CadenceFact[] {
  const C = CADENCE;
  const facts: CadenceFact[] = [];
  const bar = sounding.ticksPerQuarter;
  const starts = new Set(phrases.map((p) => p.start));
  const chosen = new Map<CadenceCandidate, boolean>();
  for (const phrase of phrases) {
    let best: CadenceCandidate | null = null;
    for (const c of candidates) {
      const closes = c.at > phrase.start && c.at < phrase.end && c.until + bar / 2 > phrase.last;
      // The goal of a feminine ending comes just before the last notes, in the same chord or in its own.
      if (!closes || (c.until <= phrase.last && phrase.last - c.at > 2 * bar)) continue;
      const needed = C.threshold - (phrase.answered && c.type === 'HC' ? C.answered : 0);
      if (c.score + C.phraseEnd >= needed && (!best || c.score > best.score)) best = c;
    }
    if (best) chosen.set(best, true);
  }
  for (const c of candidates)
    if (
      !chosen.has(c) &&
      c.score >= (c.type === 'EC' ? C.insideEvaded : C.inside) &&
      c.type !== 'HC' &&
      c.type !== 'PC' &&
      !starts.has(c.at)
    )
      chosen.set(c, false);
  for (const [c, ends] of [...chosen].sort((a, b) => a[0].at - b[0].at)) {
    const score = c.score + (ends ? C.phraseEnd : 0);
    const fact: CadenceFact = {
      id: factId('cadence', c.to.start),
      start: c.to.start,
      type: c.type,
      key: closingKey(c.from, c.to, c.type),
      from: c.from.id,
      to: c.to.id,
      strength: Math.round(100 / (1 + Math.exp(-0.9 * (score - 3)))) / 100,
      confidence: confidenceOf('cadence', {
        margin: 1.6 * (score - C.threshold) + 0.4,
        half: c.type === 'HC',
        perfect: c.type === 'PAC',
        evaded: c.type === 'EC',
        deceptive: c.type === 'DC',
        sectionEnd: c.evidence.includes('a section ends')
      }),
      evidence: [...c.evidence, ...(ends ? ['a phrase ends'] : [])].join('; ')
    };
    // What is more likely wrong than right is not said.
    if (fact.confidence >= C.said) facts.push(fact);
  }
  return facts;
}
