import { ORNAMENT_SPEEDS } from '../style/ornament-speeds.ts';
import { lasts, topOf } from './player-line.ts';
import type { Technique } from './technique.ts';
import { trillFingers, windChart } from './wind-fingers.ts';
import { upperOf } from './trill.ts';

const ORNAMENT = /trill|mordent|turn/;

/** Ornaments whose fingers cannot do it, or not at this speed. */
export function hardOrnaments(t: Technique): { at: number; why: string }[] {
  const chart = windChart(t.instrument.key, t.player?.fingerings);
  return t.line.attacks.flatMap((a, at): { at: number; why: string }[] => {
    const top = topOf(a);
    const sign = top.marks?.find((m) => ORNAMENT.test(m.name));
    if (!sign || a.grace || !top.pitch) return [];
    const grip = t.strings?.grips[at];
    const place = grip?.at(-1);
    const name = sign.name.replace(/-mark$/, '').replace(/-/g, ' ');
    if (place && place.finger === 4 && sign.name !== 'mordent')
      return [{ at, why: `For this ${name} no finger is left above the fourth: take the note in another position.` }];
    const upper = upperOf(t, at);
    const moving = chart && upper ? (trillFingers(chart, top.pitch, upper)?.moving.length ?? 0) : 0;
    const seconds = lasts(a);
    const notes = ORNAMENT_SPEEDS.leastNotes;
    const fastest = moving > 1 ? ORNAMENT_SPEEDS.severalFingers : ORNAMENT_SPEEDS.oneFinger;
    return notes / seconds > fastest
      ? [
          {
            at,
            why: `This ${name} has ${seconds.toFixed(2)} s: its ${notes} notes do not fit${moving > 1 ? ` with ${moving} fingers that move` : ''}.`
          }
        ]
      : [];
  });
}
