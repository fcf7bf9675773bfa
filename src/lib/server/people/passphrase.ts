import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string | Buffer, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);

/** Cost of scrypt: 2^15, 8, 3 (OWASP Password Storage Cheat Sheet, scrypt), 32 MB and about a tenth of a second. */
const COST = { N: 2 ** 15, r: 8, p: 3 };
const BYTES = 32;
const MEMORY = (N: number, r: number): number => 256 * N * r;

/** What is kept of a passphrase: "scrypt$N$r$p$salt$key", never itself. */
export async function hashed(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const { N, r, p } = COST;
  const key = await derive(passphrase.normalize('NFKC'), salt, BYTES, { N, r, p, maxmem: MEMORY(N, r) });
  return ['scrypt', N, r, p, salt.toString('base64'), key.toString('base64')].join('$');
}

/** Whether a passphrase is the one that was kept. */
export async function fits(passphrase: string, kept: string): Promise<boolean> {
  const [, N, r, p, salt, key] = kept.split('$');
  const expected = Buffer.from(key, 'base64');
  const cost = { N: Number(N), r: Number(r), p: Number(p), maxmem: MEMORY(Number(N), Number(r)) };
  const made = await derive(passphrase.normalize('NFKC'), Buffer.from(salt, 'base64'), expected.length, cost);
  return timingSafeEqual(made, expected);
}
