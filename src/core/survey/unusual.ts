import { alteredNotes } from '../score/accidentals.ts';
import { toNumber } from '../score/fraction.ts';
import type { Score } from '../score/model.ts';
import { tempoMarks } from '../score/tempo.ts';
import { GroupBuilder, plural, type SurveyGroup } from './line.ts';
import { pitchedNotes } from './range.ts';
import { tempoOfWords } from '../style/tempo-words.ts';

/** What is unusual in this score, so that it is not found out in the lesson. */
export function unusual(score: Score): SurveyGroup {
  const group = new GroupBuilder('Unusual here');
  const altered = alteredNotes(score);
  const notes = score.parts.reduce((sum, p) => sum + pitchedNotes(score, p).length, 0);
  const noSignature = score.measures.every((m) => m.key.fifths === 0 && !m.key.steps);
  if (altered.length > 0.12 * notes && altered.length > 5)
    group.add(
      noSignature ? 'No key signature' : 'Many accidentals',
      `${plural(altered.length, 'accidental')}, ${altered.filter((a) => !a.printed).length} of them carried`,
      altered.map((a) => a.note.measure)
    );
  const own = score.measures.filter((m) => m.key.steps);
  if (own.length) group.add('Key signature', 'outside the circle of fifths', [own[0].index]);
  const free = score.measures.filter((m) => !m.time);
  if (free.length)
    group.add(
      'Free meter',
      plural(free.length, 'bar'),
      free.map((m) => m.index)
    );
  const changes = score.measures.filter((m, k) => k > 0 && m.time?.text !== score.measures[k - 1].time?.text);
  if (changes.length > 2)
    group.add(
      'The meter changes often',
      plural(changes.length, 'time'),
      changes.map((m) => m.index)
    );
  const quarterTones = score.notes.filter((n) => n.pitch && !Number.isInteger(n.pitch.alter));
  if (quarterTones.length)
    group.add(
      'Quarter tones',
      plural(quarterTones.length, 'note'),
      quarterTones.map((n) => n.measure)
    );
  if (!score.directions.some((d) => d.kind === 'dynamic') && !score.hairpins.length)
    group.add('No dynamics', 'the page leaves loudness to the player');
  if (!score.slurs.length && !score.notes.some((n) => n.marks?.some((m) => m.group === 'articulation')))
    group.add('No articulation', 'the page leaves articulation to the player');
  const words = score.directions.some((d) => d.kind === 'words' && tempoOfWords(d.text));
  if (!tempoMarks(score).length && !words) group.add('No tempo', 'the page leaves the tempo to the player');
  const long = score.notes.filter((n) => !n.rest && !n.grace && toNumber(n.duration) >= 8);
  if (long.length)
    group.add(
      'Very long notes',
      plural(long.length, 'note'),
      long.map((n) => n.measure)
    );
  const clefs = score.parts.flatMap((p) => p.changes.filter((c) => c.clefs && (c.measure > 0 || c.onset.n > 0)).map((c) => c.measure));
  if (clefs.length) group.add('Clef changes', plural(clefs.length, 'time'), clefs);
  const across = score.notes.filter((n, k) => {
    const before = score.notes[k - 1];
    return before && before.part === n.part && before.voice === n.voice && before.measure === n.measure && before.staff !== n.staff;
  });
  if (across.length)
    group.add(
      'Voices that cross staves',
      plural(across.length, 'place'),
      across.map((n) => n.measure)
    );
  const pickup = score.measures[0];
  if (pickup.time?.quarters && toNumber(pickup.length) < toNumber(pickup.time.quarters))
    group.add('Upbeat', 'the piece begins before the first full bar', [0]);
  return group.group;
}
