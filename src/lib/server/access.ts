import type { RequestEvent } from '@sveltejs/kit';
import { database } from './db/client.ts';
import { OWNER } from './owner.ts';
import { Studio } from './studio.ts';

/** Who is asking: decided here once for each request. One owner for now. */
const personOf = (_event: RequestEvent): string => OWNER;

/** What the person who asks may reach. */
export const studioOf = async (event: RequestEvent): Promise<Studio> => new Studio(await database(), personOf(event));
