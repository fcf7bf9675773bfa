import type { Collation } from '$core/collation/collate';

/** A further source as the server laid it beside the first. */
export interface SourceCollation extends Collation {
  id: number;
  hash: string;
  name: string;
}
