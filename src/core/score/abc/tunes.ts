import { decodeText } from '../bytes.ts';
import { isZip } from '../container.ts';

/** One tune of an ABC file: its title, and a text of its own with the file's header before it. */
export interface AbcTuneText {
  title: string;
  text: string;
}

/**
 * The tunes of an ABC text, each begun by an X: field. What stands before the first one is the file's header and holds
 * for all. ABC 2.1, sections 2.2 and 2.2.3.
 */
export function tunesIn(source: string): AbcTuneText[] {
  const lines = source.split(/\r\n|\r|\n/);
  const starts = lines.flatMap((line, k) => (/^X:\s*\d/.test(line) ? [k] : []));
  const header = lines.slice(0, starts[0] ?? 0).filter((line) => /^(%%|[A-Za-z]:)/.test(line));
  return starts.map((from, k) => {
    const own = lines.slice(from, starts[k + 1] ?? lines.length);
    while (own.length && !own.at(-1)!.trim()) own.pop();
    const title = /^T:\s*(.*\S)/m.exec(own.join('\n'))?.[1] ?? `tune ${k + 1}`;
    return { title, text: [...header, ...own].join('\n') + '\n' };
  });
}

/** The tunes of a file; none where it is no ABC. */
export function tunesOf(bytes: Uint8Array): AbcTuneText[] {
  if (isZip(bytes)) return [];
  const text = decodeText(bytes);
  return /^\s*[<{]/.test(text) ? [] : tunesIn(text);
}
