/** Work that is done when its result is first asked for, and only once. */
export function once<T>(work: () => T): () => T {
  let known: { value: T } | null = null;
  return () => (known ??= { value: work() }).value;
}
