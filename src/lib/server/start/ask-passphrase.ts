import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { SHORTEST_PASSPHRASE } from '../config/config.ts';

/** Asks for the owner's passphrase on the console, unseen; null where nobody can be asked. */
export async function askPassphrase(): Promise<string | null> {
  if (!process.stdin.isTTY) return null;
  const unseen = new Writable({ write: (_chunk, _encoding, done) => done() });
  const ask = async (question: string): Promise<string> => {
    process.stdout.write(question);
    const lines = createInterface({ input: process.stdin, output: unseen, terminal: true });
    const answer = await lines.question('');
    lines.close();
    process.stdout.write('\n');
    return answer;
  };
  for (;;) {
    const first = await ask(`A passphrase for the owner (at least ${SHORTEST_PASSPHRASE} characters): `);
    if (first.length < SHORTEST_PASSPHRASE) console.log('That is too short.');
    else if ((await ask('Once more: ')) === first) return first;
    else console.log('The two are not the same.');
  }
}
