import type { AnySchema } from 'joi';
import type { SchemaKit } from '../../schema-kit.ts';
import type { Reading } from '../reading.ts';
import type { Command } from './index.ts';

/** Does another act: for acts that are made of acts. */
export type Apply = (reading: Reading, command: Command) => Reading;

/** All that there is to say about one kind of act. @typeParam F its fields, without its type */
export interface CommandDescription<F> {
  /** Schema of its fields, all of which must be there. @param single schema of any act that is not made of acts */
  schema(kit: SchemaKit, single: AnySchema): Record<keyof F & string, AnySchema>;
  /** The reading after it. On what is gone it changes nothing. */
  apply(reading: Reading, fields: F, apply: Apply): Reading;
  /** What it does, for the history and for undo: "pulling a level". */
  words(fields: F): string;
}

/** A record without one key. */
export function without<T extends object>(record: T, key: PropertyKey): T {
  const rest = { ...record };
  delete rest[key as keyof T];
  return rest;
}

/** A record in which a key has a value, or, where that is null, is absent. */
export const setOrLet = <T>(record: Record<PropertyKey, T>, key: PropertyKey, value: T | null): Record<PropertyKey, T> =>
  value === null ? without(record, key) : { ...record, [key]: value };
