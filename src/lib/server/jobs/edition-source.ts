import type { Facts } from '../../../core/analysis/facts.ts';
import type { EditionInput } from '../../../core/edition/open-edition.ts';
import type { Command } from '../../../core/reading/commands/index.ts';
import { advanced, readingAt, type Standing } from '../../../core/reading/log.ts';

/**
 * What an edition is made of, as it is handed to a worker: a reading with its log since some place, or what was frozen, as
 * text. It is opened there, so that nothing long is read on the server's main thread.
 */
export type EditionSource =
  | (Pick<EditionInput, 'document' | 'others' | 'names'> & { standing: Standing; since: Command[]; facts: string | null })
  | { frozen: string };

/** What the edition is made of, in records. */
export function openSource(source: EditionSource): EditionInput {
  if ('frozen' in source) return JSON.parse(source.frozen) as EditionInput;
  const { standing, since, facts, ...rest } = source;
  return { ...rest, reading: readingAt(advanced(standing, since)), facts: facts === null ? null : (JSON.parse(facts) as Facts) };
}
