// Runs everything that must be green: types, lint, unit tests, build, interface tests. Installs what is missing.
// Plain JavaScript, because nothing is installed yet on a fresh clone.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';

const run = (title, command, args) => {
  console.log(`\n— ${title}`);
  execFileSync(command, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } });
};

/** Does several rows of steps side by side; what a step says is shown when it has ended. The first fault ends the run. */
const sideBySide = (...rows) =>
  Promise.all(
    rows.map(async (steps) => {
      for (const [title, command, args] of steps) {
        const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, FORCE_COLOR: '0' } });
        let said = '';
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => (said += data));
        const code = await new Promise((done) => child.on('close', done));
        console.log(`\n— ${title}\n${said}`);
        if (code !== 0) process.exit(1);
      }
    })
  );

const installed = 'node_modules/.package-lock.json';
if (!existsSync(installed) || statSync('package-lock.json').mtimeMs > statSync(installed).mtimeMs)
  run('installing packages', 'npm', ['ci', '--no-audit', '--no-fund']);
const lacking = [
  ...(existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium') ? [] : ['chromium']),
  ...(existsSync('/usr/sbin/nginx') ? [] : ['nginx'])
];
if (lacking.length) {
  run(`installing ${lacking.join(' and ')}`, 'apt-get', ['update']);
  run(`installing ${lacking.join(' and ')}`, 'apt-get', ['install', '-y', '--no-install-recommends', ...lacking]);
}

const unitTests = [];
const walk = (folder) => {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) walk(path);
    else if (entry.name.endsWith('.test.ts')) unitTests.push(path);
  }
};
walk('tests/unit');

run('types', 'npx', ['svelte-kit', 'sync']);
await sideBySide(
  [['types', 'npx', ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings']]],
  [
    ['lint', 'npx', ['eslint', '.']],
    ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']]
  ]
);
run('build', 'npm', ['run', '-s', 'build']);
run('unit tests', process.execPath, [
  '--import',
  'tsx',
  '--test',
  `--test-concurrency=${availableParallelism()}`,
  '--test-reporter=spec',
  ...unitTests
]);
run('interface tests', 'npx', ['playwright', 'test']);
