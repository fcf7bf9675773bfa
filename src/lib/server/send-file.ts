import { fileName } from './http.ts';
import { FORMATS, type Format } from './formats.ts';
import { runTask } from './jobs/run.ts';
import type { EditionInput } from '../../core/edition/open-edition.ts';
import type { FileLine } from '../shapes.ts';
import { streamed } from './stream.ts';

/** A file for downloading. */
export const download = (body: Uint8Array | string, type: string, name: string): Response =>
  new Response(body as BodyInit, { headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` } });

/** A MusicXML document; `cache` says how long the browser may keep it. */
export const musicXml = (document: string, cache: string): Response =>
  new Response(document, {
    headers: { 'content-type': 'application/vnd.recordare.musicxml+xml; charset=utf-8', 'cache-control': cache }
  });

/**
 * An edition as a file, made in a worker. With `follow` the answer is lines of JSON instead: {"stage": …} while the work
 * goes on, then {"file": in base64, "name": …, "type": …}.
 */
export async function sendEdition(input: EditionInput, format: Format, follow: boolean, request: Request): Promise<Response> {
  const name = `${fileName(input.names.title)}.${format}`;
  if (!follow) return download(await runTask('file', { input, format }, () => {}, request.signal), FORMATS[format], name);
  return streamed<FileLine>('Something went wrong here while the file was made.', async (say, signal) => {
    const file = await runTask('file', { input, format }, (stage) => say({ stage }), signal);
    say({ file: Buffer.from(file as Uint8Array).toString('base64'), name, type: FORMATS[format] });
  });
}
