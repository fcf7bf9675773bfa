import { error, isHttpError } from '@sveltejs/kit';
import { ArchiveError } from './archive/part.ts';
import { databaseFault } from './db/faults.ts';
import { TaskRefused } from './jobs/run.ts';

/** What a user is told of something that went wrong for a reason; null where the program itself is at fault. */
export function refusalOf(fault: unknown): { status: number; sentence: string } | null {
  if (isHttpError(fault)) return { status: fault.status, sentence: fault.body.message };
  if (fault instanceof TaskRefused) return { status: fault.status, sentence: fault.message };
  if (fault instanceof ArchiveError) return { status: 422, sentence: fault.message };
  return databaseFault(fault);
}

/** Ends the request with what the user is told; other faults go on as they are. */
function told(fault: unknown): never {
  const refusal = refusalOf(fault);
  if (refusal) error(refusal.status, refusal.sentence);
  throw fault;
}

/**
 * The same thing, but whatever its methods run into ends the request with a sentence and its status: a lock, a full disk, a
 * task that was refused. What they give that has methods of this kind is wrapped too.
 * @param kinds classes whose things are wrapped when a method gives them
 */
export function inSentences<T extends object>(thing: T, kinds: readonly (abstract new (...args: never[]) => object)[]): T {
  return new Proxy(thing, {
    get(target, name) {
      const value: unknown = Reflect.get(target, name, target);
      if (typeof value !== 'function') return value;
      return (...args: unknown[]): unknown => {
        const result: unknown = value.apply(target, args);
        if (!(result instanceof Promise)) return result;
        return result.then((given: unknown) => (kinds.some((k) => given instanceof k) ? inSentences(given as object, kinds) : given), told);
      };
    }
  });
}
