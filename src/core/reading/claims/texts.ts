import type { ClaimKind } from './claim.ts';

/** Questions about the text: what differs between places that are the same music, notes that may be misprints. */
export const OF_TEXTS = {
  'suspect note': { needs: ['text'], placed: true, words: ({ text }) => text!, holds: ({ notes }, { page }) => page.notes(notes) !== null },
  'parallel differs': {
    needs: ['text'],
    placed: true,
    words: ({ text }) => text!,
    holds: ({ fact, notes }, { facts, page }) => facts.parallels.some((p) => p.id === fact) && page.notes(notes) !== null
  }
} satisfies Record<string, ClaimKind>;
