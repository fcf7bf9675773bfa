import { keep, kept } from '../kept';

/** The lanes of the ribbon, from above. */
export const LANES = ['form', 'keys', 'plan', 'time'] as const;
export type LaneName = (typeof LANES)[number];

const KEPT = 'nuvelo-folded-lanes';

/** Which lanes this browser has folded away. */
export class Folded {
  private names = $state.raw<readonly string[]>((kept(KEPT) ?? '').split(' ').filter(Boolean));

  has(lane: LaneName): boolean {
    return this.names.includes(lane);
  }

  turn(lane: LaneName): void {
    this.names = this.has(lane) ? this.names.filter((n) => n !== lane) : [...this.names, lane];
    keep(KEPT, this.names.join(' '));
  }
}
