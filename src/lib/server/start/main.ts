/**
 * The one way in which the server starts (`npm start`, `node build`): everything is checked before anybody is let in, and
 * what is wrong is said in one sentence.
 */
import { createServer } from 'node:http';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import { ConfigError, readConfig, type Config } from '../config/config.ts';
import { DatabaseRefused, openDatabase } from '../db/open.ts';
import { hasPassphrase, keepPassphrase } from '../people/owner.ts';
import { askPassphrase } from './ask-passphrase.ts';

/** Seconds that answers under way may take when the server is told to stop. */
const LAST_SECONDS = 10;

class StartRefused extends Error {}

/** Opens, checks and updates the database, and sees to the passphrase. */
async function prepare(config: Config): Promise<void> {
  const db = await openDatabase(config.databaseUrl, config.folder);
  try {
    if (config.passphrase) await keepPassphrase(db, config.passphrase);
    else if (config.login && !(await hasPassphrase(db))) {
      const passphrase = await askPassphrase();
      if (passphrase === null)
        throw new StartRefused(
          'Others can reach this address, so the owner needs a passphrase: set NUVELO_PASSPHRASE, or start once from a console.'
        );
      await keepPassphrase(db, passphrase);
    }
  } finally {
    db.$client.close();
  }
}

/** What the handler of the framework reads from the environment, so that it means what the configuration means. */
function tellHandler(config: Config): void {
  process.env.BODY_SIZE_LIMIT = '260M';
  if (config.addressHeader) process.env.ADDRESS_HEADER = config.addressHeader;
  if (config.origin) process.env.ORIGIN = config.origin;
  else {
    delete process.env.ORIGIN;
    process.env.PROTOCOL_HEADER = 'x-nuvelo-protocol';
  }
}

async function start(): Promise<void> {
  const root = dirname(dirname(fileURLToPath(import.meta.url)));
  process.chdir(root);
  const config = readConfig(process.env, root);
  await prepare(config);
  tellHandler(config);
  const { handler } = (await import('./handler.js' as string)) as {
    handler: (req: unknown, res: unknown, next: () => void) => void;
  };
  const compress = compression();
  const server = createServer((req, res) => {
    req.headers['x-nuvelo-protocol'] = 'http';
    compress(req as never, res as never, () => handler(req, res, () => void res.writeHead(404).end()));
  });
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE') refuse(`The port ${config.port} is in use already; choose another with PORT.`);
    else if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND') refuse(`The address ${config.host} is none of this machine's.`);
    else if (error.code === 'EACCES') refuse(`The port ${config.port} may not be used by this user; choose one above 1023.`);
    else throw error;
  });
  server.listen(config.port, config.host, () => {
    const name = config.host.includes(':') ? `[${config.host}]` : config.host;
    console.log(`Listening on ${config.origin ?? `http://${name}:${config.port}`}`);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      setTimeout(() => process.exit(0), LAST_SECONDS * 1000).unref();
    });
}

function refuse(sentence: string): never {
  console.error(sentence);
  process.exit(1);
}

start().catch((error: unknown) => {
  if (error instanceof ConfigError || error instanceof DatabaseRefused || error instanceof StartRefused) refuse(error.message);
  throw error;
});
