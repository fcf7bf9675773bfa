// Bundles the bench as the workers are bundled, so that what is measured is what runs, and starts it.
import { build } from 'esbuild';
import { rmSync } from 'node:fs';

const outfile = 'scripts/.bench-build.mjs';
await build({
  entryPoints: ['scripts/bench.ts'],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning'
});
try {
  await import(`../${outfile}`);
} finally {
  rmSync(outfile, { force: true });
}
