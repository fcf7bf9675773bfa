import type { MarkingDescription } from '../description.ts';
import { accent } from './accent.ts';
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

/** All kinds of editorial markings, in the order in which they are offered. */
export const KINDS = {
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
  fingering,
  bowing
} as const satisfies Record<string, MarkingDescription>;

export type MarkingKind = keyof typeof KINDS;

export const MARKING_KINDS = Object.keys(KINDS) as MarkingKind[];
