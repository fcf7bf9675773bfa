import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { build } from 'esbuild';

/**
 * The name of the engine: a sum over the code that makes facts, survey and the first picture, as it is bundled, with the engraver's
 * version, so that a comment changes nothing and a number does.
 */
export async function engineKey(): Promise<string> {
  const { outputFiles } = await build({
    stdin: {
      contents:
        "export * from './src/core/analysis/analyse.ts'; export * from './src/core/survey/survey.ts'; export * from './src/core/score/read-file.ts'; export * from './src/core/edition/first-picture.ts';",
      resolveDir: process.cwd(),
      loader: 'ts'
    },
    bundle: true,
    minify: true,
    write: false,
    format: 'esm',
    platform: 'node',
    external: ['fflate', 'saxes']
  });
  const { version } = JSON.parse(readFileSync('node_modules/verovio/package.json', 'utf8')) as { version: string };
  return createHash('sha256').update(outputFiles[0].text).update(version).digest('hex').slice(0, 16);
}
