import { execFileSync } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { createClient } from '@libsql/client';
import '../src/lib/server/db/driver.ts';
import { copyDatabase } from '../src/lib/server/backup/copy.ts';
import { restore } from '../src/lib/server/backup/restore.ts';
import { end, newFolder, remove, serve, take, type BenchServer } from './bench-server.ts';
import { longScore } from './long-score.ts';

type Say = (what: string, value: string, limit: string) => void;

/** A window that makes acts in order and sends each until it is acknowledged, or until it is told to stop. */
class Window {
  acknowledged: string[] = [];
  stopped = false;
  private base = 0;
  private made = 0;
  constructor(
    private readonly address: () => string,
    private readonly name: string,
    private readonly history: string | null = null
  ) {}

  async make(count: number): Promise<void> {
    for (let k = 0; k < count && !this.stopped; k++) await this.send(`${this.name}-${this.made++}`);
  }

  private async send(origin: string): Promise<void> {
    const command = { type: 'request-tempo', range: { low: 60, high: 61 + (this.made % 100) } };
    for (;;) {
      const answer = await fetch(`${this.address()}/api/readings/1/commands`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ base: this.base, history: this.history, acts: [{ origin, command }] }),
        signal: AbortSignal.timeout(10_000)
      }).catch(() => null);
      if (answer?.status === 410) return void (this.stopped = true);
      const said =
        answer &&
        ([200, 409].includes(answer.status) ? ((await answer.json()) as { revision: number; missed?: { origin: string }[] }) : null);
      if (!said) {
        await wait(50);
        continue;
      }
      this.base = said.revision;
      if (answer.status === 200 || said.missed!.some((a) => a.origin === origin)) return void this.acknowledged.push(origin);
    }
  }
}

/** Origins that are stored, in order. */
async function stored(folder: string): Promise<string[]> {
  const db = createClient({ url: `file:${folder}/nuvelo.db`, timeout: 5000 });
  const { rows } = await db.execute('select origin from commands where reading_id = 1 order by seq');
  db.close();
  return rows.map((r) => String(r.origin));
}

/** "0 lost, 0 double" of what was acknowledged, out of so many. */
function verdict(acknowledged: readonly string[], found: readonly string[]): string {
  const there = new Set(found);
  return `${acknowledged.filter((o) => !there.has(o)).length} lost, ${found.length - there.size} double of ${acknowledged.length}`;
}

async function withServer(work: (server: BenchServer, again: () => Promise<void>) => Promise<void>): Promise<void> {
  const folder = newFolder();
  const server = await serve(4322, folder);
  try {
    await take(server.address, 'a.musicxml', longScore(16));
    await work(server, async () => void Object.assign(server, await serve(4322, folder)));
  } finally {
    await end(server, 'SIGKILL');
    remove(folder);
  }
}

async function killed(say: Say): Promise<void> {
  await withServer(async (server, again) => {
    const window = new Window(() => server.address, 'w');
    const making = window.make(1000);
    for (let k = 0; k < 5; k++) {
      await wait(500);
      await end(server, 'SIGKILL');
      await again();
    }
    await making;
    say('1,000 acts, killed five times', verdict(window.acknowledged, await stored(server.folder)), '0 lost, 0 double');
  });
}

async function twoProcesses(say: Say): Promise<void> {
  await withServer(async (server) => {
    const twin = await serve(4323, server.folder);
    const windows = Array.from({ length: 6 }, (_, k) => new Window(() => (k % 2 ? twin : server).address, `w${k}`));
    await Promise.all(windows.map((w) => w.make(60)));
    await end(twin);
    say(
      'six windows on two processes',
      verdict(
        windows.flatMap((w) => w.acknowledged),
        await stored(server.folder)
      ),
      '0 lost, 0 double'
    );
  });
}

async function locked(say: Say): Promise<void> {
  await withServer(async (server) => {
    const other = createClient({ url: `file:${server.folder}/nuvelo.db`, timeout: 5000 });
    const lock = await other.transaction('write');
    const window = new Window(() => server.address, 'w');
    const making = window.make(20);
    const reads: number[] = [];
    for (const until = Date.now() + 20_000; Date.now() < until; await wait(100)) {
      const start = performance.now();
      await (await fetch(`${server.address}/api/pieces`)).arrayBuffer();
      reads.push(performance.now() - start);
    }
    await lock.commit();
    other.close();
    await making;
    say('another program holds the database for 20 s', verdict(window.acknowledged, await stored(server.folder)), '0 lost, 0 double');
    say('reading meanwhile, longest', `${Math.max(...reads).toFixed(0)} ms`, '≤ 500 ms');
  });
}

async function restored(say: Say): Promise<void> {
  await withServer(async (server) => {
    const file = `${server.folder}/nuvelo.db`;
    const db = createClient({ url: `file:${file}`, timeout: 5000 });
    const history = String((await db.execute("select value from settings where key = 'identity'")).rows[0].value);
    db.close();
    const windows = Array.from({ length: 4 }, (_, k) => new Window(() => server.address, `w${k}`, history));
    await Promise.all(windows.map((w) => w.make(20)));
    await copyDatabase(file, `${server.folder}/copy.db`);
    const before = await stored(server.folder);
    const making = Promise.all(windows.map((w) => w.make(500)));
    await wait(300);
    await restore(`${server.folder}/copy.db`, file);
    await making;
    const after = await stored(server.folder);
    const same = JSON.stringify(after) === JSON.stringify(before);
    const stopped = windows.filter((w) => w.stopped).length;
    say(
      'a backup restored under four open windows',
      `${stopped} stopped, ${same ? 'the backup whole' : `${after.length} acts for ${before.length}`}`,
      '4, whole'
    );
  });
}

async function full(say: Say): Promise<void> {
  const folder = newFolder();
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=3m', 'tmpfs', folder], { stdio: 'ignore' });
  } catch {
    say('a full disk', 'not measured', 'needs the right to mount');
    remove(folder);
    return;
  }
  const server = await serve(4322, folder, { NUVELO_BACKUPS: 'off' });
  try {
    await take(server.address, 'a.musicxml', longScore(16));
    execFileSync('sh', ['-c', `dd if=/dev/zero of=${folder}/ballast bs=1024 2>/dev/null || true`]);
    const window = new Window(() => server.address, 'w');
    const making = window.make(200);
    await wait(1500);
    const answer = await fetch(`${server.address}/api/readings/1/commands`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        base: (await stored(folder)).length,
        acts: [{ origin: 'probe', command: { type: 'write-brief', from: 0, to: 0, text: 'x'.repeat(8000) } }]
      })
    });
    const { message } = (await answer.json()) as { message?: string };
    execFileSync('rm', [`${folder}/ballast`]);
    await making;
    say(
      'the disk was full for a while',
      verdict(
        window.acknowledged,
        (await stored(folder)).filter((o) => o !== 'probe')
      ),
      '0 lost, 0 double'
    );
    say(`  and said ${answer.status}`, message ?? '', '507');
  } finally {
    await end(server, 'SIGKILL');
    execFileSync('umount', ['-l', folder]);
    remove(folder);
  }
}

/** What is acknowledged is kept, whatever happens. */
export async function durability(say: Say): Promise<void> {
  await killed(say);
  await twoProcesses(say);
  await locked(say);
  await restored(say);
  await full(say);
}
