import { editionPages } from '../../../../core/edition/pages/edition-pages.ts';
import type { Glyphs, Page } from '../../../../core/edition/pages/page.ts';
import type { OpenedEdition } from '../../../../core/edition/open-edition.ts';
import { openEngraver, type LineEngraver } from './engraver.ts';
import { engraveSystems } from './engrave-systems.ts';
import { measure } from './faces.ts';

/** Pages as they are made, and what is needed to draw them. */
export interface PageMaker {
  pages: AsyncGenerator<Page>;
  glyphs: Glyphs;
  /** The music font as WOFF2 in base64, as far as it is known. */
  musicFont: () => string | null;
}

/** Makes the pages of an edition one after another; those of text alone do not wait for the engraver to start. */
export function makePages({ document, edition, sounding }: OpenedEdition, progress: (stage: string) => void): PageMaker {
  const starting = openEngraver();
  const glyphs: Glyphs = new Map();
  let font: () => string | null = () => null;
  const pages = editionPages(edition, measure, async (room) => {
    const open = await starting;
    const of = edition.score.measures.length;
    const engraver = (w: number, staff: number): LineEngraver => {
      const line = open(w, staff);
      font = line.musicFont;
      return line;
    };
    return engraveSystems({
      document,
      edition,
      sounding,
      room,
      engraver,
      glyphs,
      measure,
      progress: (bar) => progress(`engraving bar ${bar + 1} of ${of}`)
    });
  });
  return { pages, glyphs, musicFont: () => font() };
}
