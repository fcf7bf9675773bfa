/** How long to wait before a failed save is tried again: at first, and at most after many. */
const RETRY_MS = 2000;
const LONGEST_RETRY_MS = 30_000;

/** Milliseconds to wait after so many failures. Not all at the same moment: a server that comes back must not be overrun. */
export const pauseAfter = (failures: number): number => Math.min(RETRY_MS * 2 ** failures, LONGEST_RETRY_MS) * (0.75 + Math.random() / 4);
