import type { CommandDescription } from './commands/command.ts';
import { COMMANDS, type Command } from './commands/index.ts';
import { LIMITS } from '../style/limits.ts';
import { EMPTY_READING, type Reading } from './reading.ts';

/** A command as it is sent and stored: `origin` is its name at the window that made it, null where none made it. */
export interface Act {
  origin: string | null;
  command: Command;
}

/** Null for acts that a later version wrote into the log. */
const descriptionOf = (command: Command): CommandDescription<Command> | null =>
  (COMMANDS as unknown as Record<string, CommandDescription<Command>>)[command.type] ?? null;

/** The state after one more act; undo and redo are resolved before this. Acts on what is gone change nothing. */
export const apply = (reading: Reading, command: Command): Reading => descriptionOf(command)?.apply(reading, command, apply) ?? reading;

/** A command in words, for the history and for undo. */
export const describe = (command: Command): string => descriptionOf(command)?.words(command) ?? command.type;

/**
 * Where a log stands: `done` are the last acts that count and `undone` those that redo could bring back (next one last);
 * `base` is what the acts before made, which undo does not reach any more. From here on the acts before are not needed.
 */
export interface Standing {
  /** How many commands the log has. */
  revision: number;
  base: Reading;
  done: Command[];
  undone: Command[];
}

export const AT_THE_BEGINNING: Standing = { revision: 0, base: EMPTY_READING, done: [], undone: [] };

/** Where a log stands after more commands. */
export function advanced(standing: Standing, commands: readonly Command[]): Standing {
  const done = [...standing.done];
  let { base, undone } = { base: standing.base, undone: [...standing.undone] };
  for (const command of commands) {
    if (command.type === 'undo') {
      const last = done.pop();
      if (last) undone.push(last);
    } else if (command.type === 'redo') {
      const again = undone.pop();
      if (again) done.push(again);
    } else {
      done.push(command);
      undone = [];
    }
    if (done.length > LIMITS.undo) base = apply(base, done.shift()!);
  }
  return { revision: standing.revision + commands.length, base, done, undone };
}

/** The reading where a log stands. */
export const readingAt = ({ base, done }: Standing): Reading => done.reduce(apply, base);

/** The reading that a log of commands makes. */
export const replay = (log: readonly Command[]): Reading => readingAt(advanced(AT_THE_BEGINNING, log));
