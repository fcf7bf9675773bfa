import { toNumber } from '../score/fraction.ts';
import type { Note, Part, Score } from '../score/model.ts';
import { intervalBetween, midi, pitchName, type Pitch } from '../score/pitch.ts';
import { instrumentOf, type InstrumentChoices } from '../style/instruments/instrument-of.ts';
import { GroupBuilder, type SurveyGroup } from './line.ts';

type Pitched = Note & { pitch: Pitch; sounding: Pitch };

export const pitchedNotes = (score: Score, part: Part): Pitched[] =>
  score.notes.filter((n): n is Pitched => n.part === part.index && n.sounding !== undefined && !n.cue);

/** The middle four fifths of the sounding time, by height: where the line lives. Common practice. */
function tessitura(notes: readonly Pitched[]): [Pitched, Pitched] | null {
  const long = notes.filter((n) => n.duration.n > 0).sort((a, b) => midi(a.sounding) - midi(b.sounding));
  const total = long.reduce((sum, n) => sum + toNumber(n.duration), 0);
  let sum = 0;
  let low: Pitched | null = null;
  for (const n of long) {
    sum += toNumber(n.duration);
    if (!low && sum >= 0.1 * total) low = n;
    if (low && sum >= 0.9 * total) return [low, n];
  }
  return null;
}

const OCTAVES = ['', 'one octave', 'two octaves', 'three octaves', 'four octaves', 'five octaves', 'six octaves', 'seven octaves'];
const STEPS = ['', 'a second', 'a third', 'a fourth', 'a fifth', 'a sixth', 'a seventh'];

/** "two octaves and a fourth". */
function width(low: Pitch, high: Pitch): string {
  const steps = intervalBetween(low, high).diatonic;
  if (steps === 0) return 'one note';
  return [OCTAVES[Math.floor(steps / 7)], STEPS[steps % 7]].filter(Boolean).join(' and ');
}

/** Range and tessitura of each part, written and sounding, with the extremes located and held against the instrument. */
export function range(score: Score, instruments: InstrumentChoices): SurveyGroup {
  const group = new GroupBuilder('Range');
  for (const part of score.parts) {
    const notes = pitchedNotes(score, part);
    if (!notes.length) continue;
    const low = notes.reduce((a, b) => (midi(b.sounding) < midi(a.sounding) ? b : a));
    const high = notes.reduce((a, b) => (midi(b.sounding) > midi(a.sounding) ? b : a));
    const label = part.name || 'Part';
    group.add(label, `${pitchName(low.pitch)} to ${pitchName(high.pitch)} written: ${width(low.pitch, high.pitch)}`);
    const at = (n: Pitched) => notes.filter((x) => midi(x.sounding) === midi(n.sounding)).map((x) => x.measure);
    group.add(`${label}, highest`, pitchName(high.pitch), at(high));
    group.add(`${label}, lowest`, pitchName(low.pitch), at(low));
    if (part.transpose.chromatic) group.add(`${label}, sounding`, `${pitchName(low.sounding)} to ${pitchName(high.sounding)}`);
    const middle = tessitura(notes);
    if (middle)
      group.add(
        `${label}, tessitura`,
        `${pitchName(middle[0].pitch)} to ${pitchName(middle[1].pitch)}${part.transpose.chromatic ? ` (sounding ${pitchName(middle[0].sounding)} to ${pitchName(middle[1].sounding)})` : ''}: the middle four fifths of its time`
      );
    const { range: usual, name } = instrumentOf(score, part, instruments);
    const outside = usual ? notes.filter((n) => midi(n.sounding) < midi(usual.low) || midi(n.sounding) > midi(usual.high)) : [];
    if (usual && outside.length)
      group.add(
        `${label}, out of range`,
        `${outside.length} notes lie outside ${pitchName(usual.low)} to ${pitchName(usual.high)}, the usual range of the ${name}`,
        outside.map((n) => n.measure)
      );
  }
  return group.group;
}
