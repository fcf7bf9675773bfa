import { PAPERS } from '../../reading/page-settings.ts';
import { barLabel, measureAt } from '../../score/position.ts';
import { TYPE } from '../../style/page-weights.ts';
import type { Edition } from '../text/edition.ts';
import { after, before } from '../text/parts.ts';
import { setMusic, type SetSystem } from './music.ts';
import type { Measure, Page } from './page.ts';
import { Typesetter } from './typesetter.ts';

/** Width and height of a page in points. */
export function pageSize({ paper, landscape }: Edition['reading']['pages']): { width: number; height: number } {
  const [short, long] = PAPERS[paper];
  return landscape ? { width: long, height: short } : { width: short, height: long };
}

/** Room for music on a page that has nothing else, in points. */
export interface MusicRoom {
  width: number;
  height: number;
}

/** The pages of an edition, each handed out as soon as it is full; the music is asked for when its turn comes. */
export async function* editionPages(
  edition: Edition,
  measure: Measure,
  music: (room: MusicRoom) => Promise<{ count: number; systems: Iterable<SetSystem> }>
): AsyncGenerator<Page> {
  const { score, facts, reading, title, composer, instrument } = edition;
  const { pages } = reading;
  const { width, height } = pageSize(pages);
  const setter = new Typesetter(width, height, measure, title);
  setter.head(composer, pages.variant === 'card' ? '' : instrument);
  const front = before(edition);
  front.forEach((p) => setter.part(p));
  yield* setter.finished();
  if (pages.variant !== 'card') {
    // The music begins a page, unless the text before it has left most of one free.
    if (front.length && setter.y > TYPE.startsBelow * height) setter.newPage();
    yield* setter.finished();
    const { count, systems } = await music({ width: setter.lineWidth, height: setter.bottom - TYPE.margin });
    const entries = facts.sections.map((s) => {
      const first = measureAt(score, s.start);
      return { measure: first.index, title: `${s.label}, ${barLabel(score.measures, first)}` };
    });
    yield* setMusic(setter, systems, count, entries);
    after(edition).forEach((p) => setter.part(p));
  }
  yield* setter.end();
}
