import type { NewMarking } from '../markings/marking.ts';

/** What a rule suggests; becomes a marking when it is kept. The key is stable while rule and place are. */
export interface Proposal {
  key: string;
  rule: string;
  /** 0 to 1: rule strength in this profile times how sure the facts are. */
  strength: number;
  marking: Omit<NewMarking, 'proposal'>;
  /** Proposals of one group are drafted together or not at all. */
  group?: string;
  /** Weaker rules that would have said otherwise at this place. */
  outweighs?: { rule: string; value: string; strength: number }[];
}
