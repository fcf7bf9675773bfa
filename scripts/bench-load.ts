import { Agent, get } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { end, newFolder, quantile, remove, serve, take } from './bench-server.ts';
import { longScore } from './long-score.ts';

type Say = (what: string, value: string, limit: string) => void;

const agent = new Agent({ keepAlive: true, maxSockets: 1000 });

/** Asks as a browser does, with as little work here as can be: what asks and what answers share the machine. */
const asked = (address: string): Promise<Buffer> =>
  new Promise((done, fail) => {
    get(address, { agent, headers: { 'accept-encoding': 'gzip' } }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () => (answer.statusCode === 200 ? done(Buffer.concat(parts)) : fail(new Error(`status ${answer.statusCode}`))));
    }).on('error', fail);
  });

/** How long one reader waits for a piece: its page, what it is made of, and the score. In milliseconds. */
async function opening(address: string, piece: number, made: readonly string[]): Promise<number> {
  const start = performance.now();
  await asked(`${address}/pieces/${piece}/reading`);
  await Promise.all(made.map((path) => asked(address + path)));
  return performance.now() - start;
}

/** So many openings, begun evenly over so many seconds. */
const classOf = (readers: number, seconds: number, open: () => Promise<number>): Promise<number[]> =>
  Promise.all(
    Array.from({ length: readers }, async (_, k) => {
      await wait((1000 * seconds * k) / readers);
      return open();
    })
  );

/** A class that opens one piece, and a folder of scores that is brought in, as ratios to the idle server of the same run. */
export async function load(say: Say): Promise<void> {
  const folder = newFolder();
  const server = await serve(4321, folder);
  try {
    const piece = await take(server.address, 'class.musicxml', longScore(100));
    const html = await (await fetch(`${server.address}/pieces/${piece}/reading`)).text();
    const [, hash, engine] = /sourceHash:"([0-9a-f]{64})",engine:"(\w+)"/.exec(html)!;
    const made = [`/api/sources/${hash}/facts?engine=${engine}`, `/api/sources/${hash}`];
    const open = () => opening(server.address, piece, made);
    // Until its workers have loaded what they need, the server is not idle.
    await (await fetch(`${server.address}/api/readings/1/pages`)).text();
    await wait(3000);
    for (let k = 0; k < 40; k++) await open();
    const alone: number[] = [];
    for (let k = 0; k < 25; k++) {
      alone.push(await open());
      // Longer than a page that was put together is given to others.
      await wait(350);
    }
    const idle = quantile(alone, 0.5);
    say('one reader opens a piece of 100 bars', `${idle.toFixed(0)} ms`, '');
    const five = quantile(await classOf(200, 5, open), 0.95);
    say('200 readers within five seconds, p95 / one reader', `${(five / idle).toFixed(1)} ×`, '≤ 3');
    const one = quantile(await classOf(200, 1, open), 0.95);
    say('200 readers within one second, p95 / one reader', `${(one / idle).toFixed(1)} ×`, '≤ 20');

    const thousand = longScore(1000);
    const small: number[] = [];
    const ended: number[] = [];
    const begun = performance.now();
    let done = false;
    const imports = Promise.all(
      Array.from({ length: 10 }, async (_, k) => {
        await take(server.address, `long-${k}.musicxml`, thousand.replace('<score-partwise', `<!-- ${k} --><score-partwise`));
        ended.push(performance.now() - begun);
      })
    ).finally(() => (done = true));
    while (!done) {
      const start = performance.now();
      await (await fetch(`${server.address}/api/readings/1/commands?after=0`)).arrayBuffer();
      small.push(performance.now() - start);
      await wait(50);
    }
    await imports;
    say('10 imports of 1,000 bars at once: the last one after', `${(Math.max(...ended) / 1000).toFixed(1)} s`, '');
    say('small requests meanwhile, p95', `${quantile(small, 0.95).toFixed(0)} ms`, '≤ 200 ms');

    // Twelve files are being made when a small score is brought in.
    const files = Array.from({ length: 12 }, (_, k) =>
      fetch(`${server.address}/api/readings/${k + 1}/edition?format=pdf`).catch(() => null)
    );
    await wait(300);
    const start = performance.now();
    await take(server.address, 'small.musicxml', longScore(8));
    const behind = performance.now() - start;
    const whole = performance.now();
    await end(server, 'SIGKILL');
    await Promise.all(files);
    say('a small import behind twelve PDFs', `${(behind / 1000).toFixed(1)} s`, whole ? '≤ 10 s' : '');
  } finally {
    await end(server, 'SIGKILL');
    remove(folder);
  }
}
