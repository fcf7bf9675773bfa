import { STRING_NAMES } from '../../markings/kinds/string.ts';
import { fingerName } from '../left-hand.ts';
import { height, mainAttack, silenceBefore, topOf } from '../player-line.ts';
import type { Technique } from '../technique.ts';
import { mark, type LyingMark } from './lying.ts';

/** What each note is played with; what goes on by itself is not needed on the page. */
export function marksOf(t: Technique): LyingMark[] {
  const { attacks } = t.line;
  const marks: LyingMark[] = [];
  t.bow?.strokes.forEach((s, k, all) => {
    const at = mainAttack(t.line, s.from);
    const lifted = k > 0 && silenceBefore(t.line, s.from) > 0;
    // Turning at each stroke needs no sign; where it begins, and where it does not turn, one does.
    const needed = k === 0 || lifted || s.way === 'hook' || s.way === 'retake' || s.way === 'split' || all[k - 1]?.way === 'retake';
    marks.push(mark('bowing', `${s.direction}-bow`, topOf(attacks[at]), needed));
  });
  if (t.strings) {
    let position = 1;
    t.strings.grips.forEach((grip, k) => {
      const all = grip.flatMap((p, h) => (p ? [{ p, note: attacks[k].notes[h] }] : []));
      const places = all.filter(({ p }) => p.finger > 0);
      const first = places[0];
      for (const { p, note } of all.filter(({ p }) => !p.finger)) marks.push(mark('fingering', fingerName(p.finger), note, false));
      if (!first) return;
      const moved = first.p.position !== position;
      for (const { p, note } of places) marks.push(mark('fingering', fingerName(p.finger), note, moved || p.finger === 4 || p.extended));
      if (moved && first.p.string > 0 && first.p.position > 1) marks.push(mark('string', STRING_NAMES[first.p.string], first.note));
      position = first.p.position;
    });
  }
  for (const { line, fingering } of t.keyboard)
    fingering.grips.forEach((grip, k) => {
      const a = line.attacks[k];
      const outer = fingering.hand === 'right' ? grip.length - 1 : 0;
      const before = fingering.grips[k - 1];
      const old = k ? line.attacks[k - 1] : null;
      const turns = (): boolean => {
        if (!before || !old) return true;
        const [f, g] = fingering.hand === 'right' ? [before.at(-1)!, grip.at(-1)!] : [-before[0], -grip[0]];
        const step = fingering.hand === 'right' ? height(topOf(a)) - height(topOf(old)) : height(a.notes[0]) - height(old.notes[0]);
        return step !== 0 && (g - f) * step <= 0;
      };
      const needed = k === 0 || silenceBefore(line, k) > REST || turns();
      if (grip[outer]) marks.push(mark('fingering', String(grip[outer]), a.notes[outer], needed));
    });
  for (const b of t.breath?.breaths ?? []) {
    const before = attacks[b.at - 1];
    // After all that is tied to it.
    if (before && silenceBefore(t.line, b.at) <= 0.05) marks.push(mark('breath', 'breath', before.held.at(-1) ?? topOf(before)));
  }
  t.sticks?.sticks.forEach((sticks, k) => {
    const [s] = sticks;
    const before = t.sticks!.sticks[k - 1]?.[0];
    const lone = sticks.length === 1;
    const alternates = s === 'L' || s === 'R' ? s !== before : (s === '2' && before === '3') || (s === '3' && before === '2');
    const needed = lone && (k === 0 || !alternates || silenceBefore(t.line, k) > REST);
    sticks.forEach((stick, h) => marks.push(mark('sticking', stick, attacks[k].notes[h], needed)));
  });
  for (const w of t.wide) for (const { note, to } of w.shared) marks.push(mark('hand', to === 'right' ? 'r.h.' : 'l.h.', note));
  for (const { measure, start, end } of t.pedal) marks.push({ kind: 'pedal', value: 'pedal', start, end, staff: 2, measure, needed: true });
  return marks;
}

/** Seconds of silence after which a hand begins anew. [M] */
const REST = 0.4;
