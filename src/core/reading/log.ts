import type { CommandDescription } from './commands/command.ts';
import { COMMANDS, type Command } from './commands/index.ts';
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

/** The acts that count, after undo and redo, and those that redo could bring back (next one last). */
export function resolve(log: readonly Command[]): { done: Command[]; undone: Command[] } {
  const done: Command[] = [];
  let undone: Command[] = [];
  for (const command of log) {
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
  }
  return { done, undone };
}

/** The reading that a log of commands makes. */
export const replay = (log: readonly Command[]): Reading => resolve(log).done.reduce(apply, EMPTY_READING);
