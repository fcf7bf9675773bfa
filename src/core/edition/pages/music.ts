import { TURNS, TYPE } from '../../style/page-weights.ts';
import { fillPages, rows, type Box, type Placeable } from './fill.ts';
import type { Page, Picture } from './page.ts';
import type { Typesetter } from './typesetter.ts';

/** A system with what belongs to it on its page. Scales are points to a unit of the picture. */
export interface SetSystem {
  picture: Picture;
  scale: number;
  /** First measure, and the one after the last. */
  from: number;
  to: number;
  /** How well the page can be turned after it, 0 to 1. */
  turn: number;
  /** Ornaments of the system written out on a small staff. */
  footnote: { picture: Picture; scale: number } | null;
}

/** Room between the music and the footnotes, with their rule. */
const FOOTNOTE_GAP = 14;

/** Room that a footnote takes at the foot of the page, with a little beside it. */
const footOf = ({ footnote }: SetSystem): Box | null =>
  footnote && { width: footnote.picture.drawn * footnote.scale + FOOTNOTE_GAP, height: footnote.picture.height * footnote.scale };

/**
 * Sets systems on pages from where the typesetter stands, and hands the pages out as they are full.
 * @param count of the systems in all
 * @param entries of the table of contents, by first measure
 */
export function* setMusic(
  setter: Typesetter,
  systems: Iterable<SetSystem>,
  count: number,
  entries: readonly { measure: number; title: string }[]
): Generator<Page> {
  const room = setter.bottom - TYPE.margin;
  const known: SetSystem[] = [];
  function* placeable(): Generator<Placeable> {
    for (const system of systems) {
      // What is taller than a page (a large score) is made smaller until it fits.
      const height = system.picture.height * system.scale;
      const foot = footOf(system);
      const small = Math.min(1, (room - (foot?.height ?? 0)) / height);
      known.push(small < 1 ? { ...system, scale: system.scale * small } : system);
      yield { height: height * small, turn: system.turn, foot };
    }
  }
  const top = setter.y;
  let next = 0;
  let page = 0;
  let closing: { bottom: number } | null = null;
  for (const filled of fillPages(placeable(), count, {
    first: setter.bottom - top,
    other: room,
    gap: TYPE.betweenSystems,
    width: setter.lineWidth
  })) {
    if (page++ > 0) setter.newPage();
    if (filled.from === 0 && filled.to > 0) setter.entry('Music', 0);
    const start = setter.y;
    const here = known.slice(filled.from, filled.to);
    here.forEach((system, k) => {
      for (; next < entries.length && entries[next].measure < system.to; next++) setter.entry(entries[next].title, 1);
      setter.put({ kind: 'picture', x: TYPE.margin, y: start + filled.y[k], scale: system.scale, picture: system.picture });
    });
    setFootnotes(setter, here);
    const last = here.at(-1);
    closing =
      last && !here.some((s) => s.footnote) ? { bottom: start + filled.y[here.length - 1] + last.picture.height * last.scale } : null;
    yield* setter.finished();
  }
  // What is said after the music begins under it, where most of a page would stay empty.
  if (!closing || closing.bottom > TURNS.fullEnough * setter.bottom) setter.newPage();
  else setter.y = closing.bottom + TYPE.afterMusic;
  yield* setter.finished();
}

function setFootnotes(setter: Typesetter, systems: readonly SetSystem[]): void {
  const notes = systems.filter((s) => s.footnote);
  if (!notes.length) return;
  const { at, height } = rows(
    notes.map((s) => footOf(s)!),
    setter.lineWidth
  );
  const top = setter.bottom - height;
  setter.put({ kind: 'rule', x: TYPE.margin, y: top - FOOTNOTE_GAP / 3, width: setter.lineWidth / 3 });
  notes.forEach(({ footnote }, k) => setter.put({ kind: 'picture', x: TYPE.margin + at[k].x, y: top + at[k].y, ...footnote! }));
}
