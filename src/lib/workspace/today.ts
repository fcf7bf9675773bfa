/** The day on which something is decided, as YYYY-MM-DD. */
export const today = (): string => new Date().toISOString().slice(0, 10);
