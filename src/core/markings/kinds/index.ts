import type { MarkingDescription } from '../description.ts';
import type { MarkingKind } from '../marking-kind.ts';
import { accent } from './accent.ts';
import { advice } from './advice.ts';
import { articulation } from './articulation.ts';
import { bowing } from './bowing.ts';
import { breath } from './breath.ts';
import { comma } from './comma.ts';
import { dynamic } from './dynamic.ts';
import { fermata } from './fermata.ts';
import { fingering } from './fingering.ts';
import { hairpin } from './hairpin.ts';
import { metronome } from './metronome.ts';
import { slur } from './slur.ts';
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
  fingering,
  bowing
};
