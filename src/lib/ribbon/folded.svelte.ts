/** The lanes of the ribbon, from above. */
export const LANES = ['form', 'keys', 'plan', 'time'] as const;
export type LaneName = (typeof LANES)[number];

const KEPT = 'nuvelo-folded-lanes';

/** Which lanes this browser has folded away. */
export class Folded {
  private names = $state.raw<readonly string[]>(kept());

  has(lane: LaneName): boolean {
    return this.names.includes(lane);
  }

  turn(lane: LaneName): void {
    this.names = this.has(lane) ? this.names.filter((n) => n !== lane) : [...this.names, lane];
    try {
      localStorage.setItem(KEPT, this.names.join(' '));
    } catch {
      // A browser that keeps nothing opens all lanes anew.
    }
  }
}

function kept(): string[] {
  try {
    return (localStorage.getItem(KEPT) ?? '').split(' ').filter(Boolean);
  } catch {
    return [];
  }
}
