import type { Study } from '../analysis/study.ts';
import type { DrillControl, DrillKind } from '../style/drills.ts';
import type { Technique } from '../technique/technique.ts';
import type { BarDifficulty, HotSpot } from './difficulty.ts';

/** What was set in a drill by its small controls. */
export type DrillSettings = Record<DrillControl, number>;

/** A piece of practice material: a score of its own, and what it is for. */
export interface Drill {
  kind: DrillKind;
  /** Measures that it is made of, both included. */
  from: number;
  to: number;
  because: string;
  how: string;
  /** Quarters a minute on the metronome's scale. */
  tempo: { start: number; goal: number };
  document: string;
  /** As it was made; what its kind does not ask for says nothing. */
  settings: DrillSettings;
}

/** All that drills are made of. */
export interface DrillContext {
  study: Study;
  technique: Technique;
  part: number;
  difficulty: readonly BarDifficulty[];
  spots: readonly HotSpot[];
}
