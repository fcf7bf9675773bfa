import { setTimeout as wait } from 'node:timers/promises';
import type { Client } from '@libsql/client';
import { isHeld } from './faults.ts';

/** How long the driver itself may wait for a lock, in milliseconds; the whole process stands still meanwhile. Set by hand. */
export const DRIVER_WAIT_MS = 20;
/** How long a request waits for a lock in all before it is told, and the longest pause between two tries. Set by hand. */
const PATIENCE_MS = 6000;
const LONGEST_PAUSE_MS = 200;

/** Tries again, in growing pauses, while another program holds the database; others are served meanwhile. */
export async function patiently<T>(work: () => Promise<T>, patience = PATIENCE_MS): Promise<T> {
  const end = Date.now() + patience;
  for (let pause = 10; ; pause = Math.min(2 * pause, LONGEST_PAUSE_MS)) {
    try {
      return await work();
    } catch (error) {
      if (!isHeld(error) || Date.now() + pause > end) throw error;
      await wait(pause);
    }
  }
}

/**
 * A client whose single statements, batches and beginnings of transactions wait for a lock without holding up the process.
 * Inside a transaction the lock is held already.
 */
export function patient(client: Client, patience = PATIENCE_MS): Client {
  const waits = ['execute', 'batch', 'migrate', 'transaction', 'executeMultiple'];
  return new Proxy(client, {
    get(target, name) {
      const value: unknown = Reflect.get(target, name, target);
      if (typeof value !== 'function') return value;
      const call = value.bind(target) as (...args: unknown[]) => Promise<unknown>;
      return waits.includes(String(name)) ? (...args: unknown[]) => patiently(() => call(...args), patience) : call;
    }
  });
}
