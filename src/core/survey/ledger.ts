import { FORGOTTEN_AFTER } from '../style/survey-weights.ts';
import { alteredNotes, keyAlter, type AlteredNote } from '../score/accidentals.ts';
import type { Note, Score } from '../score/model.ts';
import { pitchName, staffStep } from '../score/pitch.ts';
import { GroupBuilder, plural, tally, type SurveyGroup } from './line.ts';

/** Notes by part, measure and staff. */
type Bars = Map<string, Note[]>;

const letter = (n: Note): string => pitchName(n.pitch!).replace(/-?\d+$/, '');

/** Why an altered note is likely to be missed; null when it is plain enough (handbook 2.10). */
export function missReason(altered: AlteredNote, bar: readonly Note[]): string | null {
  const { note, printed } = altered;
  const name = letter(note);
  if (Math.abs(note.pitch!.alter) >= 2) return 'double accidental';
  if (['Cb', 'B#', 'E#', 'Fb'].includes(name)) return `${name} is a white key under another name`;
  if (printed || note.tie?.stop) return null;
  const at = bar.indexOf(note);
  const source = bar.slice(0, at).findLastIndex((n) => n.pitch && staffStep(n.pitch) === staffStep(note.pitch!) && n.accidental);
  const between = source < 0 ? FORGOTTEN_AFTER : at - source - 1;
  return between >= FORGOTTEN_AFTER ? `carried past ${plural(between, 'note')}` : null;
}

/** Altered notes that the next bar takes back without a sign. */
function cancelledNext(score: Score, altered: readonly AlteredNote[], bars: Bars): Note[] {
  const result = new Set<Note>();
  for (const { note } of altered) {
    const following = bars.get(`${note.part}|${note.measure + 1}|${note.staff}`);
    const next = following?.find((n) => n.pitch && staffStep(n.pitch) === staffStep(note.pitch!));
    if (!next || next.accidental || next.tie?.stop) continue;
    const plain = keyAlter(score.measures[next.measure].key, next.pitch!.step);
    if (next.pitch!.alter === plain && plain !== note.pitch!.alter) result.add(next);
  }
  return [...result];
}

/** The accidental ledger: every note that differs from the signature, by letter, and those likely to be missed. */
export function ledger(score: Score): SurveyGroup {
  const group = new GroupBuilder('Accidentals');
  const altered = alteredNotes(score);
  const carried = altered.filter((a) => !a.printed);
  group.add(
    'All',
    `${plural(altered.length, 'note')} differ${altered.length === 1 ? 's' : ''} from the key signature, ${carried.length} of them without a printed sign`
  );
  for (const t of tally(
    altered,
    (a) => letter(a.note),
    (a) => a.note.measure
  ))
    group.add(t.name, `${t.count}×`, t.bars);
  if (carried.length)
    group.add(
      'Carried through the bar',
      [...new Set(carried.map((a) => pitchName(a.note.pitch!)))].join(', '),
      carried.map((a) => a.note.measure)
    );
  const bars: Bars = new Map();
  for (const n of score.notes) {
    if (n.rest || n.cue) continue;
    const key = `${n.part}|${n.measure}|${n.staff}`;
    const bar = bars.get(key);
    if (bar) bar.push(n);
    else bars.set(key, [n]);
  }
  const missed = altered.map((a) => ({ a, why: missReason(a, bars.get(`${a.note.part}|${a.note.measure}|${a.note.staff}`) ?? []) }));
  for (const t of tally(
    missed.filter((m) => m.why),
    (m) => `${pitchName(m.a.note.pitch!)}, ${m.why}`,
    (m) => m.a.note.measure
  ))
    group.add('Likely to be missed', t.name, t.bars);
  const cancelled = cancelledNext(score, altered, bars);
  if (cancelled.length)
    group.add(
      'Taken back by the bar line',
      [...new Set(cancelled.map((n) => pitchName(n.pitch!)))].join(', '),
      cancelled.map((n) => n.measure)
    );
  return group.group;
}
