import { soundOf } from '../markings/describe.ts';
import type { Reading } from '../reading/reading.ts';
import type { Note } from '../score/model.ts';
import { SIGN_SOUNDS, type SignSound } from '../style/articulations.ts';
import { can } from '../style/instruments/instrument.ts';
import { PAUSES, SHARES } from '../style/performance-weights.ts';
import type { Settings } from './settings.ts';
import type { PlayableTone, PlayableScore } from './playable-score.ts';
import type { Pause } from './time-effects.ts';

type LengthSign = NonNullable<SignSound['length']>;

/** Share of its written value that a note sounds, and why. */
export interface Length {
  share: number;
  because: string;
}

const FULL: Length = { share: 1, because: 'full' };

/** Editorial signs and slurs by note, and pauses that cut a note short. */
export interface LengthMarks {
  signs: Map<string, LengthSign>;
  /** 1 inside an editorial slur, 3 the second of a pair, 2 the end. */
  slurs: Map<string, 1 | 2 | 3>;
  pauses: Map<string, Pause['kind']>;
  /** Notes with an editorial strong accent. */
  hats: ReadonlySet<string>;
}

export function lengthMarks(playable: PlayableScore, reading: Reading, pauses: readonly Pause[]): LengthMarks {
  const signs = new Map<string, LengthSign>();
  const slurs = new Map<string, 1 | 2 | 3>();
  const editorial = reading.markings.filter((m) => soundOf(m).binds && m.note && m.endNote);
  for (const m of reading.markings) {
    const { length } = soundOf(m);
    if (length && m.note) signs.set(m.note, length);
  }
  if (editorial.length) {
    const at = new Map(playable.tones.map((t, k) => [t.tone.note.id, k]));
    for (const m of editorial) {
      const from = at.get(m.note!);
      const to = at.get(m.endNote!);
      if (from === undefined || to === undefined) continue;
      const line = playable.tones.slice(from, to + 1).filter((t) => t.lead);
      line.forEach((t, k) => slurs.set(t.tone.note.id, k < line.length - 1 ? 1 : line.length === 2 ? 3 : 2));
    }
  }
  const hats = new Set(reading.markings.flatMap((m) => (m.kind === 'accent' && m.value === 'strong-accent' && m.note ? [m.note] : [])));
  return { signs, slurs, hats, pauses: new Map(pauses.flatMap((p) => (p.note ? [[p.note, p.kind] as const] : []))) };
}

/** Handbook 6.1: the sounding share of one note by its signs, its slur and the schools of its place. */
export function lengthOf(playable: PlayableScore, t: PlayableTone, marks: LengthMarks, settings: Settings): Length {
  const usual = usualLength(playable, t, marks, settings);
  const amount = settings.amount('articulation', t.tone.start);
  if (usual.share === 1 || amount === 1) return usual;
  return { ...usual, share: Math.max(0.1, 1 - (1 - usual.share) * amount) };
}

/** The sign that the length of a note follows: an editorial one outweighs print; a dot and a dash together are portato. */
function signOf(note: Note, marks: LengthMarks): LengthSign | undefined {
  const editorial = marks.signs.get(note.id);
  if (editorial) return editorial;
  const printed = new Set(note.marks?.map((m) => SIGN_SOUNDS[m.name]?.length));
  if (printed.has('staccato') && printed.has('tenuto')) return 'detached-legato';
  return [...printed].find((length) => length !== undefined);
}

/** A strong accent, printed or editorial: in swing it is short, where a plain one is held and falls away. Handbook 19.4 */
const isHat = (note: Note, marks: LengthMarks): boolean =>
  marks.hats.has(note.id) || (note.marks?.some((m) => m.name === 'strong-accent') ?? false);

function usualLength(playable: PlayableScore, { tone, slur: printedSlur }: PlayableTone, marks: LengthMarks, settings: Settings): Length {
  const { note } = tone;
  const at = tone.start;
  const sign = signOf(note, marks);
  const slur = marks.slurs.get(note.id) ?? printedSlur;
  const pause = marks.pauses.get(note.id);
  const cut = (length: Length): Length =>
    pause ? { share: Math.min(length.share, 1 - PAUSES[pause].cut), because: `before a ${pause}` } : length;
  const staccato = SHARES.staccato[settings.school('staccato', at) ?? 'half'];
  if (sign === 'staccatissimo') return { share: SHARES.staccatissimo, because: 'wedge' };
  // A slur that the editor draws takes nothing from a printed dot.
  const under = marks.signs.has(note.id) ? slur : printedSlur;
  if (sign === 'detached-legato' || (sign === 'staccato' && under)) return { share: SHARES.slurredStaccato, because: 'dots under a slur' };
  if (sign === 'staccato') return { share: staccato, because: 'dot' };
  if (!sign && isHat(note, marks) && (settings.school('swing', at) ?? 'straight') !== 'straight')
    return { share: SHARES.hat, because: 'hat accent' };
  if (sign === 'tenuto') return cut({ share: 1, because: 'dash' });
  if (slur === 1) return FULL;
  if (slur === 3 && settings.school('slur-pairs', at) === 'lift-second')
    return { share: SHARES.liftedSecond, because: 'second of a slurred pair' };
  if (slur) return cut({ share: SHARES.slurEnd, because: 'end of a slur' });
  // Ties are sounded through.
  if (note.tie?.start) return cut(FULL);
  const quarters = (tone.end - tone.start) / playable.sounding.ticksPerQuarter;
  const touch = SHARES.touch[settings.school('touch', at) ?? 'full'];
  const keyboard = can(playable.instruments[note.part], 'keys');
  const plain = keyboard ? touch.keyboard : touch.other;
  const next = tone.next;
  const detachedNext = next && /^staccat/.test(signOf(next.note, marks) ?? '');
  if (detachedNext)
    return cut({
      share: Math.min(plain, quarters >= 1 ? SHARES.beforeDetached : SHARES.shortBeforeDetached),
      because: 'makes room for detached notes'
    });
  if (quarters > SHARES.longQuarters) return cut({ share: Math.max(plain, SHARES.long), because: 'long note' });
  return cut(plain === 1 ? FULL : { share: plain, because: 'no sign' });
}
