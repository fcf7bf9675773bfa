import { distinct } from '../distinct.ts';
import { keyAlter } from '../score/accidentals.ts';
import { eq } from '../score/fraction.ts';
import { staffStep, type Pitch } from '../score/pitch.ts';
import { moved, newId, rhythmOf, sameNotes } from './edits.ts';
import { spelled, type Value } from './values.ts';
import { barNumber, keyAt, lengthOf, roomOf, type Sound, type Written } from './written.ts';

/** What a bar may be, from what came before: all of it, or its rhythm. */
export type BarProposal = { says: string; key: string } & ({ kind: 'notes'; sounds: Sound[] } | { kind: 'rhythm'; rhythm: Value[] });

/** Proposals that are shown at once. */
const MOST = 6;
/** How often a sequence's step is looked for: steps down and up. */
const STEPS = [-1, 1, -2, 2];
const STEP_WORDS: Record<number, string> = { [-1]: 'a step lower', 1: 'a step higher', [-2]: 'a third lower', 2: 'a third higher' };

const bare = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1);

/** A bar's sounds moved by steps within the key; ids are new. */
function copied(w: Written, bar: number, lane: number, steps: number, to: number): Sound[] {
  const alter = (step: number): number => keyAlter(keyAt(w, to), step);
  const from = keyAt(w, bar);
  const shift = (pitch: Pitch): Pitch => {
    if (!steps) return pitch;
    // What was raised against the key in one bar is raised in its copy.
    const raised = pitch.alter - keyAlter(from, pitch.step);
    const target = moved(pitch, steps, alter);
    return { ...target, alter: target.alter + raised };
  };
  return w.bars[bar].lanes[lane].map((s) => ({
    ...s,
    id: newId(),
    ids: undefined,
    lyrics: [],
    words: undefined,
    decorations: s.decorations.filter((d) => !/[()]$/.test(d)),
    pitches: s.pitches.map((p) => ({ pitch: shift(p.pitch), tie: p.tie }))
  }));
}

/** By how many steps one bar is the other, moved within the key; null when it is not. */
function stepsBetween(a: readonly Sound[], b: readonly Sound[]): number | null {
  if (a.length !== b.length || !a.length) return null;
  let by: number | null = null;
  for (let k = 0; k < a.length; k++) {
    if (!eq(a[k].duration, b[k].duration) || a[k].pitches.length !== b[k].pitches.length) return null;
    for (let n = 0; n < a[k].pitches.length; n++) {
      const steps = staffStep(b[k].pitches[n].pitch) - staffStep(a[k].pitches[n].pitch);
      if (by !== null && steps !== by) return null;
      by = steps;
    }
  }
  return by;
}

/**
 * What a bar may be, likeliest first: what followed the last time that the bar before was played, the next unit of a
 * sequence, then the rhythms of the piece by how often and how lately they were used.
 */
export function proposeBar(w: Written, bar: number, lane: number): BarProposal[] {
  const room = roomOf(w, bar);
  const sounds = (k: number): Sound[] => w.bars[k].lanes[lane];
  const usable = w.bars
    .map((_, k) => k)
    .filter((k) => k !== bar && sounds(k).length && sounds(k).every((s) => !s.open) && (!room || eq(lengthOf(sounds(k)), room)));
  const before = bar > 0 ? sounds(bar - 1) : [];
  const found: BarProposal[] = [];
  const put = (k: number, steps: number): void => {
    found.push({
      kind: 'notes',
      key: `notes-${k}-${steps}`,
      says: `as ${bare(barNumber(w, k))}${steps ? `, ${STEP_WORDS[steps] ?? `${Math.abs(steps) + 1} steps ${steps < 0 ? 'lower' : 'higher'}`}` : ''}`,
      sounds: copied(w, k, lane, steps, bar)
    });
  };
  // A sequence goes on as it began.
  const step = bar > 1 ? stepsBetween(sounds(bar - 2), before) : null;
  if (step && usable.includes(bar - 1) && Math.abs(step) <= 4) put(bar - 1, step);
  for (const k of usable.filter((x) => x < bar).reverse())
    if (k > 0 && before.length && (sameNotes(sounds(k - 1), before) || stepsBetween(sounds(k - 1), before) === 0)) put(k, 0);
  const rhythms = distinct(usable.filter((k) => k < bar).reverse(), (k) => spelled(rhythmOf(sounds(k))));
  const count = (k: number): number => usable.filter((x) => spelled(rhythmOf(sounds(x))) === spelled(rhythmOf(sounds(k)))).length;
  const followed = (k: number): number =>
    usable.some(
      (x) =>
        x > 0 &&
        before.length &&
        spelled(rhythmOf(sounds(x - 1))) === spelled(rhythmOf(before)) &&
        spelled(rhythmOf(sounds(x))) === spelled(rhythmOf(sounds(k)))
    )
      ? 1
      : 0;
  for (const k of [...rhythms].sort((a, b) => followed(b) - followed(a) || count(b) - count(a)).slice(0, 3)) {
    const rhythm = rhythmOf(sounds(k));
    found.push({ kind: 'rhythm', key: `rhythm-${spelled(rhythm)}`, says: `the rhythm of ${bare(barNumber(w, k))}`, rhythm });
  }
  if (usable.includes(bar - 1)) {
    put(bar - 1, 0);
    for (const s of STEPS) put(bar - 1, s);
  }
  return distinct(
    distinct(found, (p) => p.key),
    (p) => (p.kind === 'rhythm' ? p.key : JSON.stringify(p.sounds.map((s) => [s.duration, s.pitches])))
  ).slice(0, MOST);
}
