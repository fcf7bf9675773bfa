/**
 * Small things that this browser keeps between visits. Where its store is full or forbidden nothing is kept, and the
 * application goes on as if it were new here.
 */
type Lasting = 'always' | 'this visit';

const storeOf = (lasting: Lasting): Storage => (lasting === 'always' ? localStorage : sessionStorage);

/** @returns false where the browser keeps nothing */
export function keep(key: string, value: string, lasting: Lasting = 'always'): boolean {
  try {
    storeOf(lasting).setItem(key, value);
    return true;
  } catch {
    return false;
  }
}

/** @returns what is kept under the key; null where there is nothing, or nothing can be read */
export function kept(key: string, lasting: Lasting = 'always'): string | null {
  try {
    return storeOf(lasting).getItem(key);
  } catch {
    return null;
  }
}

export function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // What cannot be reached cannot come back either.
  }
}

/** All keys that begin so. */
export function keptKeys(prefix: string): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}
