import { createHash } from 'node:crypto';

/** Sum by which a file is known: what has the same sum is the same file. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
