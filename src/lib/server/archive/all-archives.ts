import { strToU8, Zip, ZipDeflate } from 'fflate';

/**
 * Files in one compressed file, each put together and packed while it goes out, so that never more than a part of one is
 * in memory.
 */
export async function* zipped(files: AsyncIterable<{ name: string; text: AsyncIterable<string> }>): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  let fault: Error | null = null;
  const zip = new Zip((error, part) => {
    if (error) fault = error;
    else ready.push(part);
  });
  const out = function* (): Generator<Uint8Array> {
    if (fault) throw fault;
    yield* ready.splice(0);
  };
  for await (const { name, text } of files) {
    const file = new ZipDeflate(name, { level: 6 });
    zip.add(file);
    for await (const part of text) {
      file.push(strToU8(part));
      yield* out();
    }
    file.push(new Uint8Array(), true);
    yield* out();
  }
  zip.end();
  yield* out();
}
