import { setOrLet, type CommandDescription } from './command.ts';

export interface WeighRule {
  rule: string;
  /** 0 switches it off, 1 is its own strength, 2 the most. */
  factor: number;
}

export const weighRule: CommandDescription<WeighRule> = {
  schema: ({ id, joi }) => ({ rule: id, factor: joi.number().min(0).max(2) }),
  apply: (reading, { rule, factor }) => ({ ...reading, ruleFactors: setOrLet(reading.ruleFactors, rule, factor === 1 ? null : factor) }),
  words: ({ rule, factor }) => (factor === 0 ? `switching ${rule} off` : `weighing ${rule}`)
};
