// Starts the demo studio from a fresh clone: installs, builds, fills the database, starts the server.
// Plain JavaScript, because nothing is installed yet when it begins.
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const run = (command, args) => execFileSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32' });

/** Fingerprint of the files that go into the build: names, sizes and times. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name));
    else hash.update(`${path}|${stat.size}|${stat.mtimeMs}\n`);
  };
  paths.forEach(add);
  return hash.digest('hex');
}

const upToDate = (stamp, value) => existsSync(stamp) && readFileSync(stamp, 'utf8') === value;

if (
  !existsSync('node_modules/.package-lock.json') ||
  statSync('package-lock.json').mtimeMs > statSync('node_modules/.package-lock.json').mtimeMs
) {
  console.log('Installing …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
}
const built = fingerprint(['src', 'static', 'package-lock.json', 'svelte.config.js', 'vite.config.ts', 'scripts/build.ts']);
if (!existsSync('build/index.js') || !upToDate('build/.stamp', built)) {
  console.log('Building …');
  run('npm', ['run', '-s', 'build']);
  mkdirSync('build', { recursive: true });
  writeFileSync('build/.stamp', built);
}
run(process.execPath, ['--import', 'tsx', 'scripts/seed.ts']);

const host = process.env.HOST || '127.0.0.1';
const port = process.env.PORT || '4173';
const server = spawn(process.execPath, ['build/index.js'], {
  stdio: ['inherit', 'pipe', 'inherit'],
  env: { ...process.env, HOST: host, PORT: port, NUVELO_LOG: process.env.NUVELO_LOG || 'warn' }
});
server.stdout.on('data', (data) => {
  if (String(data).includes('Listening')) console.log(`Nuvelo is ready: http://${host}:${port}`);
  else process.stdout.write(data);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
