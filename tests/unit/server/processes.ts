/** Processes of the built server, as they are started, for tests. */
import assert from 'node:assert/strict';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const ENTRY = resolve('build/index.js');
const folders: string[] = [];
const children: ChildProcess[] = [];

/** A new, empty folder; gone after the tests. */
export const newFolder = (): string => {
  folders.push(mkdtempSync(join(tmpdir(), 'nuvelo-start-')));
  return folders.at(-1)!;
};

/** Ends whatever still runs and removes all folders. */
export const cleanUp = (): void => {
  children.forEach((c) => c.kill('SIGKILL'));
  folders.forEach((f) => rmSync(f, { recursive: true, force: true }));
};

export const freePort = async (): Promise<number> => {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as { port: number };
  probe.close();
  await once(probe, 'close');
  return port;
};

export interface Started {
  address: string;
  child: ChildProcess;
  /** What it has said on its standard output so far. */
  said(): string;
}

/** Starts a server. @returns where it listens, or what it said when it did not start */
export async function start(env: Record<string, string>, cwd = process.cwd()): Promise<Started | { status: number; said: string }> {
  const port = env.PORT ?? String(await freePort());
  const child = spawn(process.execPath, [ENTRY], {
    cwd,
    env: { PATH: process.env.PATH, NUVELO_LOG: 'silent', ...env, PORT: port },
    stdio: ['ignore', 'pipe', 'pipe']
  });
  children.push(child);
  let said = '';
  let told = '';
  child.stdout!.on('data', (data) => (told += String(data)));
  child.stderr!.on('data', (data) => (said += String(data)));
  const listens = new Promise<Started>((ready) =>
    child.stdout!.on(
      'data',
      (data) => String(data).includes('Listening') && ready({ address: `http://127.0.0.1:${port}`, child, said: () => told })
    )
  );
  const ended = once(child, 'exit').then(([status]) => ({ status: Number(status), said }));
  return Promise.race([listens, ended]);
}

export const running = async (env: Record<string, string>, cwd?: string): Promise<Started> => {
  const started = await start(env, cwd);
  assert.ok('child' in started, JSON.stringify(started));
  return started;
};

export const stop = async ({ child }: Started, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> => {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = once(child, 'exit');
  child.kill(signal);
  await ended;
};

export const BYTES = { 'content-type': 'application/octet-stream' };
export const JSON_TYPE = { 'content-type': 'application/json' };
