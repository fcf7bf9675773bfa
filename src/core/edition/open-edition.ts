import { openAnalysis, factsOf, type Analysis } from '../analysis/analyse.ts';
import { chosenDocument, collateAll, type Collated, type OtherSource } from '../collation/chosen.ts';
import { details, type Details } from '../analysis/details.ts';
import type { Facts } from '../analysis/facts.ts';
import type { Texture } from '../analysis/texture.ts';
import { performanceGround } from '../performance/ground.ts';
import { perform } from '../performance/perform.ts';
import { styleOf, type Reading } from '../reading/reading.ts';
import { ruleContext } from '../reading/context.ts';
import { propose } from '../reading/propose.ts';
import { questionsOf } from '../reading/questions.ts';
import type { Score } from '../score/model.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { renumbered } from '../score/numbering.ts';
import { lazily } from '../once.ts';
import type { Edition } from './text/edition.ts';

/** What an edition is made of: its sources, the reading, its names, and the facts if they are known. */
export interface EditionInput {
  /** The document of the source that the pages follow, as it came in. */
  document: string;
  others: OtherSource[];
  reading: Reading;
  names: Pick<Edition, 'title' | 'composer' | 'instrument' | 'source'>;
  /** Of the document as it came in. */
  facts: Facts | null;
}

/** An edition with the text that it follows, and what is costly on the way to it. */
export interface OpenedEdition {
  /** The document with the readings of other sources that were chosen. */
  document: string;
  edition: Edition;
  texture: () => Texture;
}

/** A text opened for the edition: what the reading does not change. */
interface OpenedText {
  document: string;
  counted: boolean;
  shown: Score;
  analysis: Analysis;
  details: Map<string, Details>;
}

/** The text that was opened last: pages are made again and again while they are being set. */
let last: OpenedText | null = null;

function openText(document: string, score: Score, counted: boolean): OpenedText {
  if (last?.document !== document || last.counted !== counted) {
    const shown = counted ? renumbered(score) : score;
    last = { document, counted, shown, analysis: openAnalysis(shown), details: new Map() };
  }
  return last;
}

/** The source that was read last. */
let read: { document: string; score: Score } | null = null;
const readOnce = (document: string): Score =>
  (read = read?.document === document ? read : { document, score: readMusicXml(document) }).score;

/** The sources that were laid side by side last. */
let compared: { document: string; others: string; collations: Collated[] } | null = null;
function collateOnce(document: string, score: Score, others: readonly OtherSource[]): Collated[] {
  const names = others.map((o) => `${o.hash} ${o.name}`).join('\n');
  if (compared?.document !== document || compared.others !== names)
    compared = { document, others: names, collations: collateAll(score, others) };
  return compared.collations;
}

/** The document that a reading is about: the source with the readings of other sources that were chosen. */
export function chosenText({ document, others, reading }: Pick<EditionInput, 'document' | 'others' | 'reading'>): {
  document: string;
  score: Score;
  collations: Collated[];
} {
  const score = readOnce(document);
  const collations = collateOnce(document, score, others);
  const chosen = chosenDocument(document, score, collations, reading.sourceChoices);
  return { document: chosen, score: chosen === document ? score : readMusicXml(chosen), collations };
}

/**
 * Opens an edition. What is costly is worked out when a page or text asks for it, so that the first page need not wait
 * for the last.
 */
export function openEdition(input: EditionInput): OpenedEdition {
  const { reading, names } = input;
  const { document, score, collations } = chosenText(input);
  const stored = document === input.document && !reading.pins.length ? input.facts : null;
  const text = openText(document, score, reading.numbering === 'counted');
  const { shown, analysis } = text;
  const more = (facts: Facts): Details => {
    const pins = JSON.stringify(reading.pins);
    const known = text.details.get(pins) ?? details(analysis, facts, reading.pins);
    text.details.set(pins, known);
    return known;
  };
  const style = () => ({ ...styleOf(reading), details: edition.details });
  type Found = Pick<Edition, 'facts' | 'details' | 'proposals' | 'questions' | 'performance'>;
  const found = lazily<Found>({
    facts: () => stored ?? factsOf(analysis, reading.pins),
    details: () => more(edition.facts),
    proposals: () => propose(shown, edition.facts, style(), reading.part),
    questions: () => questionsOf(ruleContext(shown, edition.facts, style(), reading.part), reading),
    performance: () => perform(performanceGround(shown, edition.facts, edition.details, analysis.texture, reading.part), reading)
  });
  const edition: Edition = Object.assign(found, { ...names, collations, score: shown, reading });
  return { document, texture: () => analysis.texture, edition };
}
