import { fileName } from './file-name.ts';
import { FORMATS, type Format } from './formats.ts';
import type { Progress } from './jobs/progress.ts';
import type { FileLine } from '../shapes.ts';
import { streamed } from './stream.ts';

/** How a file is named for downloading: plain letters for all, and as it is called for those who read that (RFC 6266). */
function disposition(name: string, ending: string): string {
  const plain = `${fileName(name)}${ending}`;
  return `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(
    `${
      name
        .slice(0, 80)
        .replace(/[/\\\p{Cc}]+/gu, ' ')
        .trim() || 'edition'
    }${ending}`
  )}`;
}

/** A file for downloading. @param name its title @param ending of the file, with its point */
export const download = (body: BodyInit | Uint8Array, type: string, name: string, ending: string): Response =>
  new Response(body as BodyInit, { headers: { 'content-type': type, 'content-disposition': disposition(name, ending) } });

/** A long text for downloading, sent while it is put together. */
export function downloadParts(parts: AsyncGenerator<string | Uint8Array>, type: string, name: string, ending: string): Response {
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { done, value } = await parts.next();
      if (done) controller.close();
      else controller.enqueue(typeof value === 'string' ? encoder.encode(value) : value);
    },
    cancel: () => void parts.return(undefined)
  });
  return download(stream, type, name, ending);
}

/** A MusicXML document; `cache` says how long the browser may keep it. */
export const musicXml = (document: string, cache: string): Response =>
  new Response(document, {
    headers: { 'content-type': 'application/vnd.recordare.musicxml+xml; charset=utf-8', 'cache-control': cache }
  });

/**
 * An edition as a file. With `follow` the answer is lines of JSON instead: {"stage": …} while the work goes on, then
 * {"file": in base64, "name": …, "type": …}.
 */
export async function sendEdition(
  make: (format: Format, progress: Progress, signal: AbortSignal) => Promise<Uint8Array>,
  title: string,
  format: Format,
  follow: boolean,
  request: Request
): Promise<Response> {
  if (!follow) return download(await make(format, () => {}, request.signal), FORMATS[format], title, `.${format}`);
  return streamed<FileLine>(request, 'Something went wrong here while the file was made.', async (say, signal) => {
    const file = await make(format, (stage) => say({ stage }), signal);
    say({ file: Buffer.from(file).toString('base64'), name: `${fileName(title)}.${format}`, type: FORMATS[format] });
  });
}
