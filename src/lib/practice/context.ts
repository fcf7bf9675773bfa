import { getContext, setContext } from 'svelte';
import type { Outbox } from './outbox.svelte';
import type { Practice } from './practice.svelte';

/** The plan that is open, with what is on its way; null until the browser has it. */
export interface HeldPractice {
  current: { practice: Practice; outbox: Outbox } | null;
}

const KEY = Symbol('practice');

export const providePractice = (held: HeldPractice): HeldPractice => setContext(KEY, held);
export const usePractice = (): HeldPractice => getContext<HeldPractice>(KEY);
