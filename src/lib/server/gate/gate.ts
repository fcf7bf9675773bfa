import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { isLoopback, type Config } from '../config/config.ts';

/** Why a request may not come in: status and one sentence. */
export interface TurnedAway {
  status: 403 | 421;
  why: string;
}

/** The name in a Host header, without port and brackets; null where it is no name of a host. */
function nameOf(host: string): string | null {
  const found = /^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(:\d+)?$/i.exec(host);
  return found && found[1].replace(/^\[|\]$/g, '').toLowerCase();
}

/**
 * Whether a name is one of this server's. A foreign name that was made to point here (rebinding) is none. A bare address
 * is no name that could be made to point elsewhere: where others may come in at all, it is one.
 */
function isOurs(host: string, { origin, hosts, host: listens }: Pick<Config, 'origin' | 'hosts' | 'host'>): boolean {
  const name = nameOf(host);
  if (name === null) return false;
  if (isLoopback(name) || hosts.includes(name) || (origin !== null && new URL(origin).hostname === name)) return true;
  if (isLoopback(listens)) return false;
  const own = hostname().toLowerCase();
  return isIP(name) !== 0 || name === listens.toLowerCase() || name === own || name === `${own}.local`;
}

const READS = ['GET', 'HEAD', 'OPTIONS'];

/**
 * Whether a request may come in, by its headers alone. Writes of other sites are refused, and whatever costs something;
 * only a plain link to a page may come from elsewhere. Programs other than browsers send neither Origin nor Sec-Fetch-Site.
 * @returns null when it may
 */
export function turnedAway(
  request: Pick<Request, 'method' | 'headers'>,
  path: string,
  config: Pick<Config, 'origin' | 'hosts' | 'host'>
): TurnedAway | null {
  const host = request.headers.get('host') ?? '';
  if (!isOurs(host, config))
    return { status: 421, why: 'Nuvelo is not at home under this name. Names that it may be called by stand in ALLOWED_HOSTS.' };
  const foreign: TurnedAway = { status: 403, why: 'This was asked for by another site.' };
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  if (origin !== null && origin !== config.origin && !sameHost(origin, host)) return foreign;
  if (site === null || site === 'same-origin' || site === 'none') return null;
  // A page of ours with an origin that fits: "same-site" comes where the port differs.
  const link =
    READS.includes(request.method) &&
    request.headers.get('sec-fetch-mode') === 'navigate' &&
    request.headers.get('sec-fetch-dest') === 'document' &&
    !path.startsWith('/api/');
  return link ? null : foreign;
}

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === new URL(`http://${host}`).host || new URL(origin).host === new URL(`https://${host}`).host;
  } catch {
    return false;
  }
}
