/** Work that is done when its result is first asked for, and only once. */
export function once<T>(work: () => T): () => T {
  let known: { value: T } | null = null;
  return () => (known ??= { value: work() }).value;
}

/** A record whose values are worked out when each is first asked for, and only once. */
export function lazily<T extends object>(work: { [K in keyof T]: () => T[K] }): T {
  const record = {} as T;
  for (const key of Object.keys(work) as (keyof T)[]) Object.defineProperty(record, key, { enumerable: true, get: once(work[key]) });
  return record;
}
