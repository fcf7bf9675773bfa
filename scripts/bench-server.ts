/** A server of its own for measuring, and what is asked of it. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export interface BenchServer {
  address: string;
  child: ChildProcess;
  folder: string;
}

export const newFolder = (): string => mkdtempSync(join(tmpdir(), 'nuvelo-bench-'));

/** Starts the built server and waits until it listens. */
export async function serve(port: number, folder: string, env: Record<string, string> = {}): Promise<BenchServer> {
  const child = spawn(process.execPath, ['build/index.js'], {
    env: { ...process.env, DATA_DIR: folder, PORT: String(port), HOST: '127.0.0.1', NUVELO_LOG: 'silent', ...env },
    stdio: ['ignore', 'pipe', 'inherit']
  });
  await new Promise<void>((ready, fail) => {
    child.stdout!.on('data', (d) => String(d).includes('Listening') && ready());
    child.once('exit', () => fail(new Error('The server did not start.')));
  });
  return { address: `http://127.0.0.1:${port}`, child, folder };
}

export async function end({ child }: BenchServer, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((done) => child.once('exit', done));
  child.kill(signal);
  await gone;
}

export const remove = (folder: string): void => rmSync(folder, { recursive: true, force: true });

/** Puts a score on the shelf. @returns the piece */
export async function take(address: string, name: string, bytes: string | Buffer): Promise<number> {
  const answer = await fetch(`${address}/api/pieces?name=${name}&again`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: typeof bytes === 'string' ? bytes : new Uint8Array(bytes)
  });
  const taken = (await answer.json()) as { pieces?: number[]; message?: string };
  if (!taken.pieces) throw new Error(taken.message);
  return taken.pieces[0];
}

export const quantile = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
};
