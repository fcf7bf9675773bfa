import { midi } from '../score/pitch.ts';
import { isRest, type DrillBar, type DrillSound } from './material.ts';

/** Ties and slurs that have lost an end are let go. */
export function whole(bars: readonly DrillBar[]): DrillBar[] {
  const result = bars.map((b) => ({ ...b, sounds: b.sounds.map((s) => ({ ...s, heads: s.heads.map((h) => ({ ...h })) })) }));
  const all = result.flatMap((b) => b.sounds);
  const open: DrillSound[] = [];
  all.forEach((s, k) => {
    const next = all[k + 1];
    for (const h of s.heads) h.tie &&= next?.heads.some((o) => midi(o.pitch) === midi(h.pitch)) ?? false;
    if (isRest(s)) [s.slurStarts, s.slurStops] = [0, 0];
    const stops = Math.min(s.slurStops, open.length);
    open.length -= stops;
    s.slurStops = stops;
    for (let n = 0; n < s.slurStarts; n++) open.push(s);
  });
  for (const s of open) s.slurStarts--;
  return result;
}
