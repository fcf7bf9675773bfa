/** Bags of things by name: what is there, and how often. */
export type Bag = Map<string, number>;

export const count = (bag: Bag, key: string): void => void bag.set(key, (bag.get(key) ?? 0) + 1);

/** Share of two bags that is common to both, 0 to 1; two empty ones are alike. */
export function common(a: Bag, b: Bag): number {
  let total = 0;
  let shared = 0;
  for (const [key, n] of a) {
    total += n;
    shared += Math.min(n, b.get(key) ?? 0);
  }
  for (const n of b.values()) total += n;
  return total ? (2 * shared) / total : 1;
}
