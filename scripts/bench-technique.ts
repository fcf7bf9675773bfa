import { studyOf } from '../src/core/analysis/study.ts';
import { analyse } from '../src/core/analysis/analyse.ts';
import { readAbc } from '../src/core/score/abc/read.ts';
import { readMusicXml } from '../src/core/score/musicxml/read.ts';
import { techniqueOf, type TechniquePin } from '../src/core/technique/technique.ts';

/** Bars of the scores that are measured. */
const BARS = 300;

/** A line of eighths that walks up and down by small steps, the same each time. */
export function eighths(name: string): string {
  const letters = 'GABcdefga';
  let at = 4;
  let state = 7;
  const bars = Array.from({ length: BARS }, () =>
    Array.from({ length: 8 }, (_, k) => {
      state = (state * 1103515245 + 12345) % 2147483648;
      at = Math.max(0, Math.min(letters.length - 1, at + ((state >> 16) % 5) - 2));
      return (name === 'Highland bagpipe' && k % 4 === 0 ? '{gcd}' : '') + letters[at];
    }).join('')
  );
  return `X:1\nT:Eighths\nM:4/4\nL:1/8\nV:1 name="${name}"\nK:D\n${bars.join('|')}|]\n`;
}

/** How long the searches of technique take, against the analysis of the same score. */
export function technique(
  timed: (work: () => unknown, times?: number) => number,
  say: (what: string, value: string, limit: string) => void
): void {
  for (const [name, what, limit] of [
    ['Violin', 'bow and left hand', 500],
    ['Piano', 'one hand of a keyboard', 400],
    ['Clarinet', 'breaths and fingers', 150],
    ['Highland bagpipe', 'movements of pipes', 20]
  ] as const) {
    const score = readMusicXml(readAbc(eighths(name)));
    const study = studyOf(score);
    void study.details;
    const ask = (pins: ReadonlyMap<string, TechniquePin>) =>
      techniqueOf(study, { part: 0, instrument: null, period: 'classical', schools: {}, tempo: 90, pins });
    const ms = timed(() => ask(new Map()), 5);
    let pinned = 0;
    const again = timed(() => ask(new Map([[score.notes[7 * pinned++].id, { bow: 'up', finger: '3' }]])), 15);
    const ratio = ms / timed(() => analyse(score), 3);
    say(`${what}, ${BARS} bars of eighths; against the analysis`, `${ms.toFixed(0)} ms ${ratio.toFixed(2)} ×`, `≤ ${limit} ms`);
    say(`${what}, after one pin`, `${again.toFixed(0)} ms`, '≤ 30 ms');
  }
}
