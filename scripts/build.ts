/** Builds the application and the server's worker. */
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';
import { engineKey } from './engine-key.ts';

const engine = await engineKey();
execFileSync('npx', ['vite', 'build', '--logLevel', 'warn'], { stdio: 'inherit', env: { ...process.env, NUVELO_ENGINE: engine } });
await build({
  entryPoints: ['src/lib/server/jobs/worker.ts'],
  outfile: 'build/workers/worker.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  define: { __NUVELO_ENGINE__: JSON.stringify(engine) },
  // Large, with files of their own beside them or of the older kind of module, and loaded only by the tasks that need them.
  external: ['verovio/*', 'pdfkit', 'wawoff2', 'joi', '@libsql/client', 'libsql', 'drizzle-orm'],
  logLevel: 'warning'
});
// The entry takes the place of the adapter's, so that there is one way to start.
await build({
  entryPoints: ['src/lib/server/start/main.ts'],
  outfile: 'build/index.js',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  external: ['./handler.js'],
  logLevel: 'warning'
});
