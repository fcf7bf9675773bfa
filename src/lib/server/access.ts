import type { RequestEvent } from '@sveltejs/kit';
import { environment } from './config/environment.ts';
import { database } from './db/client.ts';
import { OWNER } from './owner.ts';
import { COOKIE, personOf } from './people/sessions.ts';
import { inSentences } from './refusals.ts';
import { StudioWriting } from './studio-writing.ts';
import { Studio, StudioEdition, StudioPiece, StudioReading } from './studio.ts';

/** Who is asking: decided here once for each request; null where one must sign in first. One owner for now. */
export async function personAsking(event: Pick<RequestEvent, 'cookies'>): Promise<string | null> {
  if (!environment().login) return OWNER;
  const token = event.cookies.get(COOKIE);
  return token ? personOf(await database(), token) : null;
}

/** What a person may reach; whatever goes wrong for a reason is told in a sentence. */
export const studioOf = async (person: string): Promise<Studio> =>
  inSentences(new Studio(await database(), person), [StudioPiece, StudioReading, StudioEdition, StudioWriting]);
