/** The critic over all scores: what it faults in the composers' own signs, and in drafts of the same scores. */
import { provedDraft } from '../../../../src/core/proof/proved-draft.ts';
import { EMPTY_READING } from '../../../../src/core/reading/reading.ts';
import { editionMusicXml } from '../../../../src/core/edition/musicxml.ts';
import { wholeScore } from '../../../../src/core/reading/draft/draft.ts';
import { readMusicXml } from '../../../../src/core/score/musicxml/read.ts';
import { measureAt } from '../../../../src/core/score/position.ts';
import { addedTo, critique, signsOf, type Found } from './critic.ts';
import { SCORES } from './scores.ts';

export interface Measured {
  name: string;
  /** Not looked at while the numbers of the draft were set. */
  held: boolean;
  bars: number;
  /** Marks that the draft prints, and what of them stands in the file. */
  marks: number;
  added: number;
  composers: Found[];
  drafts: Found[];
}

export const measureDrafts = (): Measured[] =>
  SCORES.map(({ name, period, held = false, opened, study: studied }) => {
    const { score, text } = opened();
    const study = studied();
    const kept = provedDraft(study, { ...EMPTY_READING, period }, wholeScore(study)).map((k) => k.marking);
    const edition = readMusicXml(editionMusicXml(text, score, kept));
    const { added, printed } = addedTo(score, edition);
    const own = kept.filter((m) => m.kind !== 'advice');
    const reasons = own.map((m) => ({ measure: measureAt(score, m.start).index, part: m.part, text: m.because[0].text }));
    return {
      name,
      held,
      bars: score.measures.length,
      marks: own.length,
      added: added.length,
      composers: critique(score, signsOf(score), []),
      drafts: critique(edition, added, printed, reasons)
    };
  });

/** Of all scores together: marks a bar, and faults in 100 bars. */
export function inAll(list: readonly Measured[]): { bars: number; marks: number; composers: number; drafts: number } {
  const sum = (of: (m: Measured) => number): number => list.reduce((total, m) => total + of(m), 0);
  const bars = sum((m) => m.bars);
  return {
    bars,
    marks: sum((m) => m.marks) / bars,
    composers: (100 * sum((m) => m.composers.length)) / bars,
    drafts: (100 * sum((m) => m.drafts.length)) / bars
  };
}
