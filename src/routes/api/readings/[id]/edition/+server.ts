import { error } from '@sveltejs/kit';
import { database } from '$lib/server/db/client';
import { fileName, valid } from '$lib/server/http';
import { runTask } from '$lib/server/jobs/run';
import { findWhole } from '$lib/server/repositories/readings';
import { formatSchema, idSchema } from '$lib/server/schemas';
import type { RequestHandler } from './$types';

/** Name of the editor in the file's header, until a studio has names of its own. */
const EDITOR = 'The instructor';

const TYPES = {
  musicxml: 'application/vnd.recordare.musicxml+xml; charset=utf-8',
  mei: 'application/xml; charset=utf-8',
  mid: 'audio/midi',
  'literal.mid': 'audio/midi'
};

/** The edition as a file: `?format=musicxml` is the source's own document with the markings written into it, `mei` that of the engraver, `mid` and `literal.mid` what it sounds like. */
export const GET: RequestHandler = async ({ params, url }) => {
  const id = valid<number>(idSchema, params.id, 'The number of the reading');
  const format = valid<keyof typeof TYPES>(formatSchema, url.searchParams.get('format') ?? 'musicxml', 'The format');
  const whole = await findWhole(await database(), id);
  if (!whole) error(404, 'This reading is not here any more.');
  const { piece, document, reading } = whole;
  const { markings } = reading;
  const file =
    format === 'mei'
      ? await runTask('mei', { document, markings, editor: EDITOR })
      : format === 'musicxml'
        ? await runTask('edition', { document, markings })
        : await runTask('midi', { document, reading, literal: format === 'literal.mid' });
  return new Response(file as BodyInit, {
    headers: {
      'content-type': TYPES[format],
      'content-disposition': `attachment; filename="${fileName(piece.title)}.${format}"`
    }
  });
};
