import { inWords, isSpan } from '../../markings/describe.ts';
import type { Marking } from '../../markings/marking.ts';
import { cmp } from '../../score/fraction.ts';
import type { Note, Score } from '../../score/model.ts';
import type { Pitch } from '../../score/pitch.ts';
import { placeName } from '../moments.ts';

const ALTERED: Record<string, string> = { '-2': ' double flat', '-1': ' flat', '0': '', '1': ' sharp', '2': ' double sharp' };

/** "C sharp 5": as one reads a note aloud. */
export const pitchSpoken = ({ step, alter, octave }: Pitch): string => `${'CDEFGAB'[step]}${ALTERED[alter] ?? ' altered'} ${octave}`;

const NOT_SPOKEN = new Set(['accidental-mark', 'wavy-line']);

/** A printed sign as one reads it aloud. */
const signSpoken = (name: string, value?: string): string =>
  `${name.replace('-mark', '').replace(/-/g, ' ')}${value && name === 'fingering' ? ` ${value}` : ''}`;

/**
 * A note, chord or rest as one reads it aloud, with its place, printed signs and editorial markings: "bar 3, beat 2, C sharp 5,
 * quarter, staccato, editorial hairpin crescendo begins".
 * @param moment what sounds with it in its voice, itself included
 */
export function spoken(score: Score, note: Note, moment: readonly Note[], markings: readonly Marking[]): string {
  const what = note.rest ? 'rest' : note.pitch ? pitchSpoken(note.pitch) : 'stroke';
  const others = moment.length > 1 ? `in a chord of ${moment.length}` : '';
  const value = note.grace
    ? 'small note'
    : note.wholeMeasure
      ? 'whole bar'
      : [note.dots ? 'dotted' : '', note.type ?? ''].filter(Boolean).join(' ');
  const printed = (note.marks ?? []).filter((m) => !NOT_SPOKEN.has(m.name)).map((m) => signSpoken(m.name, m.value));
  const slurs = score.slurs.flatMap((s) => (s.from === note.id ? [`${s.kind} begins`] : s.to === note.id ? [`${s.kind} ends`] : []));
  const words = score.directions.flatMap((d) => {
    if (d.part !== note.part || d.staff !== note.staff || cmp(d.start, note.start) !== 0) return [];
    return d.kind === 'dynamic' ? [d.value] : d.kind === 'words' ? [d.text] : [];
  });
  const hairpins = score.hairpins.flatMap((h) => (h.part === note.part && cmp(h.start, note.start) === 0 ? [`${h.kind} begins`] : []));
  const editorial = markings
    .filter((m) => m.part === note.part && m.staff === note.staff)
    .flatMap((m) => {
      const says = `editorial ${inWords(m)}`;
      if (cmp(m.start, note.start) === 0 && (!m.note || moment.some((n) => n.id === m.note)))
        return [isSpan(m.kind) ? `${says} begins` : says];
      return m.endNote === note.id ? [`${says} ends`] : [];
    });
  const lyric = note.lyrics?.map((l) => l.text).join(' ') ?? '';
  return [
    placeName(score, note.start),
    what,
    others,
    value,
    note.tie?.start ? 'tied on' : '',
    ...printed,
    ...slurs,
    ...words,
    ...hairpins,
    ...editorial,
    lyric
  ]
    .filter(Boolean)
    .join(', ');
}
