import { fifthsPc } from '../score/pitch.ts';
import { TEMPERLEY } from '../style/key-profiles.ts';
import { NO_KEY } from '../style/tonality-weights.ts';
import type { HarmonySpan } from './harmony-search.ts';
import { sameKey } from './keys.ts';
import type { Slot, SoundingScore } from './sounding-score.ts';
import { TONES } from './vocabulary.ts';

/** Semitones of the scales that keys have, on each of the twelve notes; and of the scales that have no tonic. */
const onEach = (scale: number[], count = 12): number[][] => Array.from({ length: count }, (_, k) => scale.map((s) => (s + k) % 12));
const KEY_SCALES = [...onEach([0, 2, 4, 5, 7, 9, 11]), ...onEach([0, 2, 3, 5, 7, 8, 11])];
export const SYMMETRIC_SCALES = [...onEach([0, 2, 4, 6, 8, 10], 2), ...onEach([0, 1, 3, 4, 6, 7, 9, 10], 3)];

const correlation = (a: readonly number[], b: readonly number[]): number => {
  const [ma, mb] = [a, b].map((v) => v.reduce((x, y) => x + y, 0) / v.length);
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((x, i) => {
    ab += (x - ma) * (b[i] - mb);
    aa += (x - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  });
  return aa && bb ? ab / Math.sqrt(aa * bb) : 0;
};
const PROFILES = [TEMPERLEY.major, TEMPERLEY.minor].flatMap((profile) =>
  Array.from({ length: 12 }, (_, k) => profile.map((_, i) => profile[(i - k + 12) % 12]))
);

const timeIn = (slot: Slot, tone: { start: number; end: number }): number =>
  Math.min(tone.end, slot.end) - Math.max(tone.start, slot.start);
export const bestShare = (pcs: readonly number[], scales: readonly number[][], total: number): number =>
  scales.reduce(
    (best, scale) =>
      Math.max(
        best,
        scale.reduce((sum, pc) => sum + pcs[pc], 0)
      ),
    0
  ) / Math.max(1e-9, total);

/** Time of each of the twelve notes, and of those that no chord explains, slot by slot. */
function countSlots(sounding: SoundingScore, spans: readonly HarmonySpan[]) {
  const colour = new Uint8Array(sounding.slots.length);
  const counts = sounding.slots.map(() => ({ pcs: null as number[] | null, rough: 0 }));
  for (const span of spans) {
    const root = span.key.tonic + span.type.root;
    const members = new Set(TONES[span.type.quality].map((t) => fifthsPc(root + t)));
    for (let s = span.from; s < span.to; s++) {
      const slot = sounding.slots[s];
      if (!slot.tones.length) continue;
      const pcs = new Array<number>(12).fill(0);
      for (const tone of slot.tones) {
        const time = timeIn(slot, tone);
        const pc = fifthsPc(tone.fifths);
        pcs[pc] += time;
        const step = tone.next ? Math.abs(tone.next.midi - tone.midi) : 0;
        if (!members.has(pc) && !(step > 0 && step <= 2)) counts[s].rough += time;
      }
      counts[s].pcs = pcs;
    }
    if (span.type.cost > NO_KEY.plainCost) colour[span.from] = 2;
    else colour[span.from] = 1;
  }
  return { counts, colour };
}

/** For each slot, whether no key fits there. `spans` are the chords read there, as if there were one. */
export function slotsWithoutKey(sounding: SoundingScore, spans: readonly HarmonySpan[]): Uint8Array {
  const N = NO_KEY;
  const { counts, colour } = countSlots(sounding, spans);
  const n = sounding.slots.length;
  const result = new Uint8Array(n);
  const whole = new Array<number>(12).fill(0);
  for (const { pcs } of counts) pcs?.forEach((x, pc) => (whole[pc] += x));
  const all = whole.reduce((a, b) => a + b, 0);
  if (bestShare(whole, SYMMETRIC_SCALES, all) >= N.wholeSymmetric && bestShare(whole, KEY_SCALES, all) < N.wholeScale)
    return result.fill(1);
  if (counts.reduce((sum, c) => sum + c.rough, 0) > N.wholeRough * all) return result.fill(1);
  const values: number[] = [];
  for (let from = 0; from < n; from += N.hopSlots) values.push(evidence(counts, colour, from));
  // Two states over the windows; leaving one for the other costs, so that a chromatic bar makes no stretch without a key.
  let [tonal, none] = [0, -N.change / 2];
  const back: [boolean, boolean][] = [];
  for (const value of values) {
    const v = Math.max(-4, Math.min(4, value - N.tonal));
    const leave: [boolean, boolean] = [none - N.change > tonal, tonal - N.change > none];
    back.push(leave);
    [tonal, none] = [Math.max(tonal, none - N.change) - v / 2, Math.max(none, tonal - N.change) + v / 2];
  }
  let inNone = none - N.change / 2 > tonal;
  for (let w = values.length - 1; w >= 0; w--) {
    if (inNone) result.fill(1, w * N.hopSlots, (w + 1) * N.hopSlots);
    if (inNone ? back[w][1] : back[w][0]) inNone = !inNone;
  }
  return withEdges(sounding, spans, byBars(sounding, result));
}

/** A key of a few bars that was read at the edge of music without one belongs to it. */
function withEdges(sounding: SoundingScore, spans: readonly HarmonySpan[], slots: Uint8Array): Uint8Array {
  for (let k = 0; k < spans.length;) {
    let end = k + 1;
    while (end < spans.length && sameKey(spans[end].key, spans[k].key)) end++;
    const [from, to] = [spans[k].from, spans[end - 1].to];
    const free = [...Array(to - from).keys()].map((i) => from + i).filter((s) => !slots[s]);
    const bars = new Set(free.map((s) => sounding.slots[s].measure)).size;
    const atEdge = free.length > 0 && (slots[free[0] - 1] === 1 || slots[free[free.length - 1] + 1] === 1);
    if (atEdge && bars <= NO_KEY.edgeBars) for (const s of free) slots[s] = 1;
    k = end;
  }
  return slots;
}

type Counts = ReturnType<typeof countSlots>['counts'];

/** What a window of slots says: positive where no key fits. */
function evidence(counts: Counts, colour: Uint8Array, from: number): number {
  const N = NO_KEY;
  const pcs = new Array<number>(12).fill(0);
  let rough = 0;
  let chords = 0;
  let coloured = 0;
  // Centred on the slots that it judges.
  const first = Math.max(0, Math.min(from - (N.windowSlots - N.hopSlots) / 2, counts.length - N.windowSlots));
  for (let s = first; s < Math.min(counts.length, first + N.windowSlots); s++) {
    counts[s].pcs?.forEach((x, pc) => (pcs[pc] += x));
    rough += counts[s].rough;
    if (colour[s]) chords++;
    if (colour[s] === 2) coloured++;
  }
  const total = pcs.reduce((a, b) => a + b, 0);
  if (!total) return 0;
  const scale = bestShare(pcs, KEY_SCALES, total);
  const profile = Math.max(...PROFILES.map((p) => correlation(pcs, p)));
  const symmetric = Math.max(0, bestShare(pcs, SYMMETRIC_SCALES, total) - scale - N.symmetricFrom);
  const entropy = pcs.reduce((sum, x) => (x ? sum - (x / total) * Math.log2(x / total) : sum), 0);
  return (
    N.constant +
    N.scale * scale +
    N.profile * profile +
    (N.rough * rough) / total +
    (N.colour * coloured) / Math.max(1, chords) +
    N.symmetric * symmetric +
    N.entropy * Math.max(0, entropy - N.entropyFrom)
  );
}

/** A bar is with or without a key as a whole. */
function byBars(sounding: SoundingScore, slots: Uint8Array): Uint8Array {
  for (let s = 0; s < slots.length;) {
    let end = s;
    let without = 0;
    while (end < slots.length && sounding.slots[end].measure === sounding.slots[s].measure) without += slots[end++];
    slots.fill(2 * without > end - s ? 1 : 0, s, end);
    s = end;
  }
  return slots;
}
