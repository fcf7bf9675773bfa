import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

/** Wrong passphrases: so many from one address, and from all together, in a quarter of an hour. Set by hand. */
const SECONDS = 900;
const ONE = new RateLimiterMemory({ points: 5, duration: SECONDS });
const ALL = new RateLimiterMemory({ points: 100, duration: SECONDS });

/** Counts an attempt before it is looked at. @returns seconds to wait when there were too many, else 0 */
export async function attempt(address: string): Promise<number> {
  try {
    await ONE.consume(address);
    await ALL.consume('all');
    return 0;
  } catch (limit) {
    if (limit instanceof RateLimiterRes) return Math.max(1, Math.ceil(limit.msBeforeNext / 1000));
    throw limit;
  }
}

/** A right one takes back what was counted. */
export async function succeeded(address: string): Promise<void> {
  await ONE.delete(address);
}
