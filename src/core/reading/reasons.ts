import type { Details } from '../analysis/details.ts';
import type { Facts } from '../analysis/facts.ts';
import { keyName } from '../analysis/keys.ts';
import { inSigns, intervalWords } from '../analysis/words.ts';
import { cmp, lt, lte } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { Because, Marking } from '../markings/marking.ts';
import { placeName } from './moments.ts';

/** No more reasons than this: what matters most comes first. */
const MOST = 3;

/**
 * Reasons for a marking from the facts at its place, the weightiest first: form, cadences, colour, dissonance,
 * sequence, chord. `details` may be missing; then what only a closer look finds is left out.
 */
export function reasonsAt(
  score: Score,
  facts: Facts,
  details: Details | null,
  marking: Pick<Marking, 'start' | 'end' | 'note'>
): Because[] {
  const { start } = marking;
  const end = marking.end ?? start;
  const touches = (at: Marking['start']): boolean => lte(start, at) && lte(at, end);
  const holds = (f: { start: Marking['start']; end: Marking['start'] }): boolean => lte(f.start, start) && lt(start, f.end);
  const place = (at: Marking['start']): string => placeName(score, at);
  const found: Because[] = [];
  const say = (text: string, fact: string): void => void found.push({ text: `${inSigns(text)}.`, facts: [fact] });

  for (const s of facts.sections) if (touches(s.start)) say(`${place(s.start)}: section ${s.label} begins in ${s.opens}`, s.id);
  for (const c of facts.cadences) if (touches(c.start)) say(`${place(c.start)}: ${c.type} in ${keyName(c.key)}`, c.id);
  for (const c of facts.chords) if (c.special && (holds(c) || touches(c.start))) say(`${place(c.start)}: ${c.special} (${c.roman})`, c.id);
  for (const p of facts.phrases) {
    if (touches(p.start)) say(`${place(p.start)}: a phrase begins`, p.id);
    else if (touches(p.last)) say(`${place(p.last)}: the last note of a phrase`, p.id);
  }
  const role = details?.roles.find((r) => r.note === marking.note);
  if (role && !['chord tone', 'free', 'ornament'].includes(role.role))
    say(`${place(start)}: ${/^[aeiou]/.test(role.role) ? 'an' : 'a'} ${role.role}`, role.chord ?? `role-${role.note}`);
  for (const r of details?.rhythms ?? [])
    if (cmp(r.start, start) === 0) say(`${place(r.start)}: ${r.kind}; ${r.evidence}`, `rhythm-${r.measure}`);
  for (const s of facts.sequences)
    if (holds(s))
      say(`${place(s.start)}: a sequence of ${s.units} units${s.kind ? `, ${s.kind}` : ''}, each ${intervalWords(s.step)}`, s.id);
  for (const k of facts.keys.slice(1)) if (touches(k.start)) say(`${place(k.start)}: ${k.name} begins`, k.id);
  const chord = facts.chords.find(holds);
  if (!found.length && chord) say(`${place(chord.start)}: ${chord.roman} in ${keyName(chord.key)}`, chord.id);
  return found.slice(0, MOST);
}
