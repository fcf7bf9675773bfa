import { readChordSymbol, type ChordSymbol } from '../score/chord-symbol.ts';
import { toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { signatureShift } from '../score/transposition.ts';
import { HARMONY } from '../style/harmony-weights.ts';
import type { HarmonySpace } from './harmony-space.ts';
import { slotIndexAt, toTicks, type SoundingScore } from './sounding-score.ts';
import { QUALITIES, sameFamily } from './vocabulary.ts';

/** A chord symbol of the file where it holds, at sounding pitch. */
export interface PlacedSymbol extends ChordSymbol {
  /** As printed. */
  text: string;
  /** Slots in which it holds, half open. */
  from: number;
  to: number;
}

/** The chord symbols of a score over its slots, each until the next; those of the part that has most of them. */
export function placedSymbols(score: Score, sounding: SoundingScore): PlacedSymbol[] {
  const counts = new Map<number, number>();
  for (const h of score.harmonies) counts.set(h.part, (counts.get(h.part) ?? 0) + 1);
  const part = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  if (part === undefined || !sounding.slots.length) return [];
  const shift = signatureShift(score.parts[part].transpose.chromatic);
  const own = score.harmonies.filter((h) => h.part === part).sort((a, b) => toNumber(a.start) - toNumber(b.start));
  const placed: PlacedSymbol[] = [];
  own.forEach((h, k) => {
    const read = readChordSymbol(h.text, h.kind);
    const from = slotIndexAt(sounding, toTicks(sounding, h.start));
    const next = own[k + 1];
    const to = next ? slotIndexAt(sounding, toTicks(sounding, next.start)) : sounding.slots.length;
    if (read && to > from) placed.push({ ...read, root: read.root + shift, bass: read.bass + shift, text: h.text, from, to });
  });
  return placed;
}

/** The symbol that holds at each slot; null where none does. */
export function symbolsBySlot(symbols: readonly PlacedSymbol[], slots: number): (PlacedSymbol | null)[] {
  const bySlot = new Array<PlacedSymbol | null>(slots).fill(null);
  for (const symbol of symbols) bySlot.fill(symbol, symbol.from, symbol.to);
  return bySlot;
}

/** Reward per beat of every chord of the search under a symbol. */
export function symbolFits(symbol: PlacedSymbol, chords: HarmonySpace['chords']): Float64Array {
  const S = HARMONY.symbol;
  return Float64Array.from(chords, ({ root, quality }) => {
    if ((root - symbol.root) % 12 !== 0) return S.other;
    const stated = QUALITIES.indexOf(symbol.kind);
    const spelled = root === symbol.root ? 0 : S.otherSpelling;
    if (quality === stated) return S.same + spelled;
    return (sameFamily(quality, stated) ? S.family : S.root) + spelled;
  });
}
