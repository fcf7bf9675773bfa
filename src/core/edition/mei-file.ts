import type { Score } from '../score/model.ts';
import { escapeXml } from '../score/musicxml/escape.ts';
import { measureAt } from '../score/position.ts';
import { inWords, isPrinted } from '../markings/describe.ts';
import type { Marking } from '../markings/marking.ts';
import { sourceDescription, withApparatus, type Sources } from './apparatus.ts';
import type { OssiaMei } from './ossia-mei.ts';
import { editionMei } from './mei.ts';

/** Id of the person in the header to whom every editorial element points by `resp`. */
const EDITOR_ID = 'editor';

const reasons = (m: Marking): string =>
  [...m.because.map((b) => b.text), ...(m.remark ? [`To the player: ${m.remark}`] : [])].join(' ') || 'Editorial.';

/**
 * A whole edition as an MEI file: the MEI that the engraver made of the source, with each marking as an element
 * of its own that names the editor (`resp`) and has its reasons in an <annot> of the same measure; where sources
 * differ, their readings stand as <app>.
 */
export function editionMeiFile(
  sourceMei: string,
  score: Score,
  markings: readonly Marking[],
  ossias: readonly OssiaMei[],
  editor: string,
  sources: Sources
): string {
  const whole = { from: 0, to: score.measures.length };
  let mei = editionMei(withApparatus(sourceMei, score, sources), score, whole, markings, [], true, ossias);
  const byMeasure = new Map<number, string>();
  for (const m of markings) {
    const { index } = measureAt(score, m.start);
    const id = escapeXml(m.id);
    // What is not printed is an annotation itself.
    const annot = isPrinted(m)
      ? `<annot xml:id="because-${id}" type="because" plist="#${id}" resp="#${EDITOR_ID}">${escapeXml(reasons(m))}</annot>`
      : `<annot xml:id="${id}" type="${m.kind}" staff="${m.staff}" resp="#${EDITOR_ID}">${escapeXml(`${inWords(m)}. ${reasons(m)}`)}</annot>`;
    byMeasure.set(index, (byMeasure.get(index) ?? '') + annot);
  }
  for (const [index, xml] of byMeasure) {
    const at = mei.indexOf(`xml:id="m${index}"`);
    const close = at < 0 ? -1 : mei.indexOf('</measure>', at);
    if (close >= 0) mei = mei.slice(0, close) + xml + mei.slice(close);
  }
  mei = mei
    .replace(/<sourceDesc\b[\s\S]*?<\/sourceDesc>|<sourceDesc\s*\/>/, '')
    .replace('</fileDesc>', `${sourceDescription(sources)}</fileDesc>`);
  const person = `<respStmt><resp>editor</resp><persName xml:id="${EDITOR_ID}">${escapeXml(editor)}</persName></respStmt>`;
  return mei.replace(/<\/titleStmt>|<titleStmt\s*\/>/, (tag) =>
    tag.startsWith('</') ? `${person}</titleStmt>` : `<titleStmt><title/>${person}</titleStmt>`
  );
}
