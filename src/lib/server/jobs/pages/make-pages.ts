import { editionPages } from '../../../../core/edition/pages/edition-pages.ts';
import type { Glyphs, Page } from '../../../../core/edition/pages/page.ts';
import type { OpenedEdition } from '../../../../core/edition/open-edition.ts';
import { openEngraver } from './engraver.ts';
import { engraveSystems } from './engrave-systems.ts';
import { measure } from './faces.ts';

/** Pages as they are made, and what is needed to draw them. */
export interface PageMaker {
  pages: Generator<Page>;
  glyphs: Glyphs;
  /** The music font as WOFF2 in base64, as far as it is known. */
  musicFont: () => string | null;
}

/** Makes the pages of an edition one after another. */
export async function makePages({ document, edition, texture }: OpenedEdition, progress: (stage: string) => void): Promise<PageMaker> {
  const engraver = await openEngraver();
  const glyphs: Glyphs = new Map();
  const of = edition.score.measures.length;
  let font: () => string | null = () => null;
  const pages = editionPages(edition, measure, (width) =>
    engraveSystems({
      document,
      edition,
      texture,
      width,
      engraver: (w, staff) => {
        const line = engraver(w, staff);
        font = line.musicFont;
        return line;
      },
      glyphs,
      measure,
      progress: (bar) => progress(`engraving bar ${bar + 1} of ${of}`)
    })
  );
  return { pages, glyphs, musicFont: () => font() };
}
