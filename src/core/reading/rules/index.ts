import { DYNAMICS } from './dynamics.ts';
import { PHRASING } from './phrasing.ts';
import type { Rule } from './rule.ts';
import { TIME } from './time.ts';
import { WEIGHT } from './weight.ts';

/** All rules, in the order of the page that lists them. */
export const RULES: readonly Rule[] = [...PHRASING, ...DYNAMICS, ...WEIGHT, ...TIME];

export const ruleById = (id: string): Rule | undefined => RULES.find((r) => r.id === id);
