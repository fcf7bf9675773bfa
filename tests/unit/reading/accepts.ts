import { appendSchema } from '../../../src/lib/server/schemas.ts';

/** What the server has against an act, in its words; null when it takes it. */
export const accepts = (command: unknown): string | null =>
  appendSchema.validate({ base: 0, acts: [{ origin: 'window-1', command }] }).error?.message ?? null;
