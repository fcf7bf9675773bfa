import type { MarkingDescription } from '../description.ts';
import type { MarkingKind } from '../marking-kind.ts';
import { accent } from './accent.ts';
import { advice } from './advice.ts';
import { articulation } from './articulation.ts';
import { bowing } from './bowing.ts';
import { breath } from './breath.ts';
import { comma } from './comma.ts';
import { cue } from './cue.ts';
import { dynamic } from './dynamic.ts';
import { emendation } from './emendation.ts';
import { fermata } from './fermata.ts';
import { fingering } from './fingering.ts';
import { hairpin } from './hairpin.ts';
import { hand } from './hand.ts';
import { harmonic } from './harmonic.ts';
import { inflection } from './inflection.ts';
import { manner } from './manner.ts';
import { metronome } from './metronome.ts';
import { octave } from './octave.ts';
import { ornament } from './ornament.ts';
import { pedal } from './pedal.ts';
import { slur } from './slur.ts';
import { sticking } from './sticking.ts';
import { string } from './string.ts';
import { tempo } from './tempo.ts';
import { text } from './text.ts';

/** All that there is to say about each kind. A name without its description, or a description without its name, does not compile. */
export const KINDS: Record<MarkingKind, MarkingDescription> = {
  dynamic,
  hairpin,
  slur,
  articulation,
  accent,
  breath,
  comma,
  tempo,
  metronome,
  fermata,
  text,
  advice,
  ornament,
  fingering,
  bowing,
  string,
  harmonic,
  sticking,
  hand,
  pedal,
  octave,
  manner,
  cue,
  emendation,
  inflection
};
