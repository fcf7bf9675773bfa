import { openAnalysis, factsOf } from '../analysis/analyse.ts';
import { details } from '../analysis/details.ts';
import type { Facts } from '../analysis/facts.ts';
import type { Texture } from '../analysis/texture.ts';
import { performanceGround } from '../performance/ground.ts';
import { perform } from '../performance/perform.ts';
import { styleOf, type Reading } from '../reading/commands.ts';
import { ruleContext } from '../reading/context.ts';
import { propose } from '../reading/propose.ts';
import { questionsOf } from '../reading/questions.ts';
import type { Score } from '../score/model.ts';
import { renumbered } from '../score/numbering.ts';
import type { Edition } from './text/edition.ts';

/** Worked out when it is first asked for, once. */
function once<T>(work: () => T): () => T {
  let known: { value: T } | null = null;
  return () => (known ??= { value: work() }).value;
}

/** Names that an edition bears. */
export type EditionNames = Pick<Edition, 'title' | 'composer' | 'instrument' | 'sources'>;

/**
 * An edition of a reading. What is costly is worked out when a page or text asks for it, so that the first page need not
 * wait for the last.
 * @param stored facts that are known already; they hold only where the reading has no corrections
 */
export function openEdition(score: Score, reading: Reading, names: EditionNames, stored: Facts | null = null): { edition: Edition; texture: () => Texture } {
  const shown = reading.numbering === 'counted' ? renumbered(score) : score;
  const analysis = once(() => openAnalysis(shown));
  const facts = once(() => (stored && !reading.pins.length ? stored : factsOf(analysis(), reading.pins)));
  const more = once(() => details(shown, analysis().texture, facts(), analysis().comparison, reading.pins));
  const style = () => ({ ...styleOf(reading), details: more() });
  const proposals = once(() => propose(shown, facts(), style(), reading.part));
  const questions = once(() => questionsOf(ruleContext(shown, facts(), style(), reading.part), reading));
  const performance = once(() => perform(performanceGround(shown, facts(), more(), analysis().texture, reading.part), reading));
  return {
    texture: () => analysis().texture,
    edition: {
      ...names,
      score: shown,
      reading,
      get facts() {
        return facts();
      },
      get details() {
        return more();
      },
      get proposals() {
        return proposals();
      },
      get questions() {
        return questions();
      },
      get performance() {
        return performance();
      }
    }
  };
}
