import type { StringSchema } from 'joi';
import type { SchemaKit } from '../../schema-kit.ts';
import { SCHOOLS } from '../../style/schools.ts';

/** Schemas of a question of school and of an answer to it. */
export const schoolKey = ({ oneOf }: SchemaKit): StringSchema => oneOf(SCHOOLS.map((s) => s.key));
export const option = ({ joi }: SchemaKit): StringSchema => joi.string().max(40);
