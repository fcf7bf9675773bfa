import { cmp, type Fraction } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import type { MarkingDescription, OwnWords, Placed } from './description.ts';
import { type MarkingKind } from './marking-kind.ts';
import { capital } from '../sentences.ts';
import { isFor, type Instrument } from '../style/instruments/instrument.ts';
import { KINDS } from './kinds/index.ts';
import type { Marking, NewMarking } from './marking.ts';
import type { MarkingSound } from './sound.ts';

/** All that there is to say about a kind. */
export const kindOf = (kind: MarkingKind): MarkingDescription => KINDS[kind];

export const isSpan = (kind: MarkingKind): boolean => kindOf(kind).hangs === 'notes' || kindOf(kind).hangs === 'stretch';
/** Hangs on a note, or on notes. */
export const isOnNote = (kind: MarkingKind): boolean => kindOf(kind).hangs === 'note' || kindOf(kind).hangs === 'notes';

/** Whether a kind is for players of an instrument: it can be done there, and one of its values at least. */
export const isKindFor = (kind: MarkingKind, instrument: Instrument): boolean =>
  isFor(kindOf(kind).needs, instrument, kindOf(kind).unless) && valuesFor(kind, instrument)?.length !== 0;

const isOwnWords = (values: MarkingDescription['values']): values is OwnWords => 'hint' in values;

/** The values that a kind may take; null where it takes words of one's own. */
export const valuesOf = (kind: MarkingKind): readonly string[] | null => {
  const { values } = kindOf(kind);
  return isOwnWords(values) ? null : values;
};
/** Those of them that are for an instrument. */
export const valuesFor = (kind: MarkingKind, instrument: Instrument): readonly string[] | null => {
  const { fits } = kindOf(kind);
  const values = valuesOf(kind);
  return values && fits ? values.filter((v) => fits(v, instrument)) : values;
};
export const ownWords = (kind: MarkingKind): OwnWords | null => {
  const { values } = kindOf(kind);
  return isOwnWords(values) ? values : null;
};

/** Stands over the music; what does not stands in the commentary alone. */
export const isPrinted = ({ kind }: Pick<Marking, 'kind'>): boolean => kindOf(kind).legend !== null;

/** Words to the player, printed or in the commentary. */
export const isInWords = ({ kind }: Pick<Marking, 'kind'>): boolean => kind === 'text' || kind === 'advice';

/** "Tempo word". */
export const kindName = (kind: MarkingKind): string => capital(kindOf(kind).name);
/** Inside a sentence: "hairpin crescendo", "“from above”". */
export const inWords = (m: Pick<Marking, 'kind' | 'value'>): string => kindOf(m.kind).inWords(m.value);
/** By itself: "Dynamic: mf", "Slur". */
export const markingName = (m: Pick<Marking, 'kind' | 'value'>): string =>
  kindOf(m.kind).name === m.value ? capital(m.value) : `${kindName(m.kind)}: ${m.value.replace(/-/g, ' ')}`;

/** How a marking sounds. */
export const soundOf = (m: Pick<Marking, 'kind' | 'value'>): MarkingSound => kindOf(m.kind).sound(m.value);

/** Two markings that would say the same, or the opposite, at one place. */
export const clash = (a: Placed, b: Placed): boolean => a.kind === b.kind && kindOf(a.kind).clashes(a, b);

/** What is printed where a marking would say the opposite, in words; null where they agree. The page comes first: such a marking needs a reason. */
export const againstPrinted = (score: Score, m: Placed): string | null => (isDrawable(m) ? kindOf(m.kind).againstPrinted(score, m) : null);

/** What is wrong with the value of a kind, in one sentence; null when nothing is. */
export function valueFault(kind: MarkingKind, value: string): string | null {
  if (!value.trim()) return 'Please say what the marking is.';
  const own = ownWords(kind);
  if (!own) return valuesOf(kind)!.includes(value) ? null : `A ${kindOf(kind).name} cannot be “${value}”.`;
  if (value.length > own.most) return `A ${kindOf(kind).name} has at most ${own.most} characters.`;
  return own.fault(value);
}

type Hung = Pick<Marking, 'kind'> & { start: Fraction; end?: Fraction; note?: string; endNote?: string };

/** What a marking lacks to hang where its kind hangs, in one sentence; null when nothing. */
export function placeFault(m: Hung): string | null {
  const { hangs, name } = kindOf(m.kind);
  if ((hangs === 'note' || hangs === 'notes') && m.note === undefined) return `A ${name} needs a note to hang on.`;
  if (hangs === 'notes' && (m.endNote === undefined || m.endNote === m.note)) return `A ${name} needs a later note to end on.`;
  if ((hangs === 'notes' || hangs === 'stretch') && (!m.end || cmp(m.end, m.start) <= 0)) return `A ${name} has to end after it begins.`;
  return null;
}

/** What keeps a marking from being drawn, in one sentence; null when nothing does. */
export const markingFault = (m: NewMarking): string | null => valueFault(m.kind, m.value) ?? placeFault(m);

const isDrawable = (m: Placed): boolean => kindOf(m.kind).hangs !== 'stretch' || m.end !== undefined;
