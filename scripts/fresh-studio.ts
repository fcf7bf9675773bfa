/** Empties the data folder (DATA_DIR must be given) and fills in the demo studio, for the interface tests. */
import { rmSync } from 'node:fs';

if (!process.env.DATA_DIR) throw new Error('DATA_DIR is not set');
rmSync(process.env.DATA_DIR, { recursive: true, force: true });
await import('./seed.ts');
