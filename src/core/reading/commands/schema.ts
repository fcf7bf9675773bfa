import type { AnySchema, ObjectSchema } from 'joi';
import type { SchemaKit } from '../../schema-kit.ts';
import type { CommandDescription } from './command.ts';
import { COMMAND_TYPES, COMMANDS, type CommandType } from './index.ts';

/** Acts that are made of acts; they are never nested. */
const MADE_OF_ACTS: readonly CommandType[] = ['together'];

/** Schema of an act, chosen by its type alone, so that what is long is looked at once. */
export function commandSchema(kit: SchemaKit): AnySchema {
  const { joi } = kit;
  const byType = (types: readonly CommandType[], single: AnySchema): AnySchema => {
    const schemaOf = (type: CommandType): ObjectSchema =>
      kit.record({ type: kit.oneOf([type]), ...(COMMANDS[type] as CommandDescription<unknown>).schema(kit, single) });
    return joi.alternatives().conditional('.type', {
      switch: types.map((type) => ({ is: type, then: schemaOf(type) })),
      otherwise: kit.record({ type: kit.oneOf(types) }).unknown()
    });
  };
  const single = byType(
    COMMAND_TYPES.filter((type) => !MADE_OF_ACTS.includes(type)),
    joi.forbidden()
  );
  return byType(COMMAND_TYPES, single);
}
