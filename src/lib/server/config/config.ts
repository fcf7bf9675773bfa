import { isIP } from 'node:net';
import { resolve } from 'node:path';
import Joi from 'joi';

/** How this server was told to run. The same however it is started: everything comes from the environment through here. */
export interface Config {
  /** The address that is listened on, and its port. */
  host: string;
  port: number;
  /** The address under which browsers reach it, where a proxy stands in front; else null. */
  origin: string | null;
  /** Further names of hosts that may be asked for. */
  hosts: string[];
  /** The database: a libSQL server's address, or null for a file in the folder. */
  databaseUrl: string | null;
  folder: string;
  /** Whether one must sign in. */
  login: boolean;
  /** The owner's passphrase, where the environment brings one. */
  passphrase: string | null;
  /** Header in which a proxy tells who asks; null without one. */
  addressHeader: string | null;
  /** Nightly copies are made. */
  backups: boolean;
  /** "silent", "info" and so on. */
  logLevel: string;
}

/** Something in the environment is not as it should be, in a sentence. */
export class ConfigError extends Error {}

/** Fewest characters of a passphrase. */
export const SHORTEST_PASSPHRASE = 10;

/** Whether an address or a name can be reached from this machine only. */
export const isLoopback = (host: string): boolean => /^(localhost|127(\.\d{1,3}){3}|\[?::1\]?)$/i.test(host);

const onOff = Joi.string().valid('on', 'off');
const name = Joi.string()
  .custom((text: string) => {
    if (!isIP(text) && !/^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/i.test(text)) throw new Error('is no name or address of a machine');
    return text;
  })
  .messages({ 'any.custom': '{#label} is no name or address of a machine' });

const schema = Joi.object({
  HOST: name.default('127.0.0.1'),
  PORT: Joi.number().port().default(4173),
  ORIGIN: Joi.string().uri({ scheme: ['http', 'https'] }),
  ALLOWED_HOSTS: Joi.string(),
  DATABASE_URL: Joi.string().uri({ scheme: ['http', 'https', 'libsql', 'ws', 'wss', 'file'] }),
  DATA_DIR: Joi.string().default('data'),
  NUVELO_LOGIN: onOff,
  NUVELO_PASSPHRASE: Joi.string().min(SHORTEST_PASSPHRASE).max(1000),
  ADDRESS_HEADER: Joi.string().pattern(/^[\w-]+$/),
  NUVELO_BACKUPS: onOff.default('on'),
  NUVELO_LOG: Joi.string().valid('silent', 'error', 'warn', 'info', 'debug').default('info')
});

/** @param env the environment; empty values count as absent @param root what a relative folder starts from @throws ConfigError */
export function readConfig(env: Record<string, string | undefined>, root: string): Config {
  const known = Object.keys(schema.describe().keys as object);
  const given = Object.fromEntries(known.flatMap((key) => (env[key] ? [[key, env[key]]] : [])));
  const { value, error } = schema.validate(given, { errors: { wrap: { label: false } } });
  // What was given is not repeated: it may be the passphrase.
  if (error) throw new ConfigError(`${error.details[0].message}.`);
  const origin = value.ORIGIN ? new URL(value.ORIGIN) : null;
  const hosts = String(value.ALLOWED_HOSTS ?? '')
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((h) => h.toLowerCase());
  const reachable = [value.HOST, ...hosts, ...(origin ? [origin.hostname] : [])];
  const open = !reachable.every(isLoopback);
  if (open && value.NUVELO_LOGIN === 'off')
    throw new ConfigError('NUVELO_LOGIN=off is for this machine alone; others could read and remove everything.');
  return {
    host: value.HOST,
    port: value.PORT,
    origin: origin && origin.origin,
    hosts,
    databaseUrl: value.DATABASE_URL ?? null,
    folder: resolve(root, value.DATA_DIR),
    login: open || value.NUVELO_LOGIN === 'on',
    passphrase: value.NUVELO_PASSPHRASE ?? null,
    addressHeader: value.ADDRESS_HEADER ?? null,
    backups: value.NUVELO_BACKUPS === 'on',
    logLevel: value.NUVELO_LOG
  };
}
