import { ARTICULATION } from './articulation.ts';
import { CHARACTER } from './character.ts';
import { DIRECTION } from './direction.ts';
import { DYNAMICS } from './dynamics.ts';
import { ORNAMENTS } from './ornaments.ts';
import { PERCUSSION } from './percussion.ts';
import { PHRASING } from './phrasing.ts';
import { PIPES } from './pipes.ts';
import { RHYTHM } from './rhythm.ts';
import type { Rule } from './rule.ts';
import { SHAPE } from './shape.ts';
import { SWING } from './swing.ts';
import { TEMPO } from './tempo.ts';
import { TEXT } from './text.ts';
import { PACE } from './pace.ts';
import { TIME } from './time.ts';
import { FORM } from './form.ts';
import { WEIGHT } from './weight.ts';

/** All rules, in the order of the page that lists them. */
export const RULES: readonly Rule[] = [
  ...PHRASING,
  ...FORM,
  ...DYNAMICS,
  ...SHAPE,
  ...DIRECTION,
  ...WEIGHT,
  ...ARTICULATION,
  ...ORNAMENTS,
  ...TIME,
  ...PACE,
  ...RHYTHM,
  ...SWING,
  ...PIPES,
  ...PERCUSSION,
  ...TEMPO,
  ...CHARACTER,
  ...TEXT
];

export const ruleById = (id: string): Rule | undefined => RULES.find((r) => r.id === id);
