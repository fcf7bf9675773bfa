import { cmp } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { Marking } from '../markings/marking.ts';

/** What is printed where a marking would say the opposite, in words; null where they agree. The page comes first: such a marking needs a reason. */
export function againstPrinted(score: Score, marking: Pick<Marking, 'kind' | 'value' | 'part' | 'start' | 'end' | 'note'>): string | null {
  const { kind, value, part, start, end } = marking;
  if (kind === 'dynamic') {
    const printed = score.directions.find((d) => d.kind === 'dynamic' && d.part === part && cmp(d.start, start) === 0 && d.value !== value);
    return printed?.kind === 'dynamic' ? `${printed.value} is printed there` : null;
  }
  if (kind === 'hairpin' && end) {
    const printed = score.hairpins.find((h) => h.part === part && h.kind !== value && cmp(h.start, end) < 0 && cmp(h.end, start) > 0);
    return printed ? `a printed ${printed.kind} stands there` : null;
  }
  if (kind === 'metronome') {
    const printed = score.directions.find((d) => d.kind === 'metronome' && cmp(d.start, start) === 0 && d.perMinute);
    return printed?.kind === 'metronome' && !value.includes(printed.perMinute!)
      ? `${printed.unit} = ${printed.perMinute} is printed there`
      : null;
  }
  const note = marking.note === undefined ? undefined : score.notes.find((n) => n.id === marking.note);
  if (kind === 'articulation' && note) {
    const short = /staccat/;
    const printed = note.marks?.find(
      (m) => m.group === 'articulation' && short.test(m.name) !== short.test(value) && /staccat|tenuto/.test(m.name)
    );
    return printed ? `${printed.name} is printed on the note` : null;
  }
  if (kind === 'bowing' && note) {
    const printed = note.marks?.find((m) => /bow/.test(m.name) && m.name !== value);
    return printed ? `${printed.name} is printed on the note` : null;
  }
  return null;
}
