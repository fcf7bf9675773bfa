import { cmp, lt, lte } from '../score/fraction.ts';
import type { Note } from '../score/model.ts';
import type { KeyboardFingering } from './keyboard.ts';
import { height, type Attack, type PlayerLine } from './player-line.ts';

/** What one hand does that the other does not, or a finger that stays. */
export interface HandRemark {
  attack: Attack;
  kind: 'lifts' | 'short-beside-bound' | 'held-over' | 'struck-again';
  hand: 'left' | 'right';
  /** The heads that are meant, where single ones are. */
  notes: Note[];
}

type Hand = { line: PlayerLine; fingering: KeyboardFingering };

const short = (a: Attack): boolean => a.notes.some((n) => n.marks?.some((m) => /staccat|spiccato/.test(m.name)));
const other = (hand: 'left' | 'right'): 'left' | 'right' => (hand === 'left' ? 'right' : 'left');

/**
 * Articulation that goes apart in the two hands: the second of a slurred pair is left while the other hand goes on bound; short
 * notes beside bound ones. Handbook 14.3.
 */
export function handsApart(hands: readonly Hand[]): HandRemark[] {
  const found: HandRemark[] = [];
  if (hands.length < 2) return found;
  for (const { line, fingering } of hands) {
    const they = hands.find((h) => h.fingering.hand === other(fingering.hand))!.line;
    const overEndOf = (a: Attack): Attack | undefined => they.attacks.find((b) => !b.grace && lt(b.start, a.end) && lte(a.end, b.end));
    for (const { from, to } of line.slurs)
      if (to === from + 1) {
        const a = line.attacks[to];
        const next = line.attacks[to + 1];
        if (next && cmp(next.start, a.end) === 0 && overEndOf(a)?.joined)
          found.push({ attack: a, kind: 'lifts', hand: fingering.hand, notes: [] });
      }
    for (const a of line.attacks)
      if (!a.grace && short(a)) {
        const beside = they.attacks.find((b) => cmp(b.start, a.start) === 0 && !b.grace);
        if (beside?.joined && !short(beside)) found.push({ attack: a, kind: 'short-beside-bound', hand: fingering.hand, notes: [] });
      }
  }
  return found.sort((a, b) => cmp(a.attack.start, b.attack.start));
}

/** Touch of the organ: common notes are held over, notes that come again are left for half of their value. Handbook 14.4. */
export function organTouch(hands: readonly Hand[]): HandRemark[] {
  return hands
    .flatMap(({ line, fingering }) =>
      line.attacks.flatMap((a, k): HandRemark[] => {
        const before = line.attacks[k - 1];
        if (!before || a.grace || before.grace || cmp(before.end, a.start) !== 0) return [];
        const common = a.notes.filter((n) => before.notes.some((m) => height(m) === height(n)));
        if (!common.length) return [];
        const all = common.length === a.notes.length && a.notes.length === before.notes.length;
        return [{ attack: a, kind: all ? 'struck-again' : 'held-over', hand: fingering.hand, notes: common }];
      })
    )
    .sort((a, b) => cmp(a.attack.start, b.attack.start));
}
