/** A real proxy in front, with https, as docs/school/nginx.conf has it. */
import assert from 'node:assert/strict';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { after, test } from 'node:test';
import { generate } from 'selfsigned';
import { demoPath } from '../helpers.ts';
import { cleanUp, freePort, newFolder, running } from './processes.ts';

let nginx: ChildProcess | undefined;
after(() => {
  nginx?.kill();
  cleanUp();
});

const NAME = 'studio.example';

interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  text: string;
  /** When each part came, in milliseconds. */
  parts: number[];
}

test('behind nginx with https: signed in by a secure cookie, lines come as they are said, other sites and names are turned away', async (t) => {
  if (spawnSync('nginx', ['-v']).error) return t.skip('nginx is not installed');
  const folder = newFolder();
  const [port, inner] = [await freePort(), await freePort()];
  const pems = await generate([{ name: 'commonName', value: NAME }], {
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: NAME }] }]
  });
  writeFileSync(join(folder, 'studio.crt'), pems.cert);
  writeFileSync(join(folder, 'studio.key'), pems.private);
  const conf = readFileSync('docs/school/nginx.conf', 'utf8')
    .replace('listen 443', `listen 127.0.0.1:${port}`)
    .replace('127.0.0.1:4173', `127.0.0.1:${inner}`)
    .replaceAll('/etc/ssl/', `${folder}/`);
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((k) => `${k}_temp_path ${folder}/${k};`).join(' ');
  writeFileSync(
    join(folder, 'nginx.conf'),
    `daemon off; pid ${folder}/nginx.pid; error_log ${folder}/error.log; events {}\nhttp { access_log off; ${temporary}\n${conf}\n}`
  );
  nginx = spawn('nginx', ['-c', join(folder, 'nginx.conf'), '-p', folder, '-e', join(folder, 'error.log')], { stdio: 'inherit' });
  await running({
    ...{ DATA_DIR: folder, PORT: String(inner), ORIGIN: `https://${NAME}`, ADDRESS_HEADER: 'x-real-ip' },
    NUVELO_PASSPHRASE: 'the tide at noon'
  });

  const ask = async (path: string, method = 'GET', headers: Record<string, string> = {}, body?: string | Buffer): Promise<Answer> => {
    const sent = request({ host: '127.0.0.1', port, path, method, servername: NAME, ca: pems.cert, headers: { host: NAME, ...headers } });
    // An upload that is refused is broken off.
    sent.on('error', () => {}).on('socket', (socket) => socket.on('error', () => {}));
    sent.end(body);
    const [answer] = await once(sent, 'response');
    const parts: number[] = [];
    let text = '';
    for await (const part of answer) {
      parts.push(performance.now());
      text += String(part);
    }
    return { status: answer.statusCode, headers: answer.headers, text, parts };
  };
  for (let k = 0; ; k++) {
    const well = await ask('/health').catch(() => null);
    if (well?.status === 200) break;
    assert.ok(k < 100, 'the proxy does not answer');
    await wait(50);
  }
  const own = { origin: `https://${NAME}` };
  const form = { ...own, 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html' };
  assert.equal((await ask('/')).headers.location, '/login?then=%2F');
  const right = await ask('/login', 'POST', form, 'passphrase=the+tide+at+noon');
  assert.equal(right.status, 303);
  const [cookie] = right.headers['set-cookie'] as string[];
  assert.match(cookie, /; Secure/i);
  const signed = { cookie: cookie.split(';')[0] };
  const score = readFileSync(demoPath('etude.abc'));
  const file = { ...signed, 'content-type': 'application/octet-stream' };
  const taken = await ask('/api/pieces?name=etude.abc', 'POST', { ...file, ...own, accept: 'application/x-ndjson' }, score);
  assert.match(taken.text, /\{"stage":"reading the score"\}[\s\S]*\{"pieces":\[1\]\}/);
  const pages = await ask('/api/readings/1/pages', 'GET', { ...signed, accept: 'application/x-ndjson' });
  assert.ok(pages.parts.length > 2 && pages.parts.at(-1)! - pages.parts[0] > 20, 'pages come one after the other');
  assert.equal((await ask('/api/pieces/1', 'DELETE', { ...signed, origin: 'https://evil.example' })).status, 403);
  assert.equal((await ask('/api/pieces', 'GET', { ...signed, host: 'evil.example' })).status, 421);
  assert.equal((await ask('/api/pieces/1', 'DELETE', { ...signed, ...own })).status, 204);
  // The proxy's own sentence is never met: what is too large is refused by Nuvelo.
  assert.equal((await ask('/api/pieces?name=a.xml', 'POST', { ...file, ...own }, Buffer.alloc(66 * 1024 * 1024))).status, 413);
});
