import type { NumberSchema } from 'joi';
import type { SchemaKit } from '../../schema-kit.ts';
import { DYNAMIC_STEPS } from '../../style/dynamics.ts';

/** Schema of a level in steps of the dynamic scale. */
export const level = ({ joi }: SchemaKit): NumberSchema =>
  joi
    .number()
    .min(0)
    .max(DYNAMIC_STEPS.length - 1);
