/** Things by name: what is there, and how often. */
export type Multiset = Map<string, number>;

export const count = (set: Multiset, key: string): void => void set.set(key, (set.get(key) ?? 0) + 1);

/** Share of two multisets that is common to both, 0 to 1; two empty ones are alike. */
export function common(a: Multiset, b: Multiset): number {
  let total = 0;
  let shared = 0;
  for (const [key, n] of a) {
    total += n;
    shared += Math.min(n, b.get(key) ?? 0);
  }
  for (const n of b.values()) total += n;
  return total ? (2 * shared) / total : 1;
}
