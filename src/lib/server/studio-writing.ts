import { error } from '@sveltejs/kit';
import { changed, type WrittenChange } from '../../core/writing/change.ts';
import type { CutSystem } from '../../core/writing/facsimile.ts';
import { oddBar } from '../../core/writing/schema.ts';
import type { FacsimilePage, WritingState } from '../shapes.ts';
import type { Database } from './db/open.ts';
import { fileName } from './file-name.ts';
import { runTask } from './jobs/run.ts';
import * as facsimiles from './repositories/facsimiles.ts';
import { correctPiece, findPiece } from './repositories/pieces.ts';
import * as writings from './repositories/writings.ts';

/** Bytes of a page of paper, at most. */
export const MOST_PAGE_BYTES = 8 * 1024 * 1024;

/** A score that the person who asks writes from paper. */
export class StudioWriting {
  constructor(
    private readonly db: Database,
    private readonly person: string,
    private readonly id: number,
    readonly state: WritingState
  ) {}

  /**
   * Saves a change over the revision that a window had; what stands there, where another was quicker.
   * @param save the name of this saving: sent again, because the first answer was lost, it stands once
   */
  async save(base: number, save: string, change: WrittenChange): Promise<{ revision: number } | { conflict: WritingState }> {
    const { state } = this;
    if (state.lastSave === save) return { revision: state.revision };
    if (state.revision !== base) return { conflict: state };
    const content = changed(state.content, change);
    const fault = content ? oddBar(content) : 'it does not belong to what stands here';
    if (!content || fault) error(400, `The score is not as it should be: ${fault}.`);
    if (await writings.saveWriting(this.db, this.person, this.id, { base, save, content })) return { revision: base + 1 };
    return { conflict: (await writings.findWriting(this.db, this.person, this.id)) ?? state };
  }

  /** It stands on the shelf as a piece; where it already stands there as another, that one keeps it and this one has a copy. */
  async shelve(pieceId: number): Promise<void> {
    if ((await findPiece(this.db, pieceId))?.owner !== this.person) error(404, 'This piece is not on the shelf.');
    if (this.state.pieceId === null) await writings.shelveWriting(this.db, this.person, this.id, pieceId);
    else if (this.state.pieceId !== pieceId) {
      const copy = await writings.addWriting(this.db, this.person, this.state.content, pieceId);
      await facsimiles.copyPages(this.db, this.id, copy);
    }
  }

  /** The piece that it stands on the shelf as follows it from now on; its readings stay. */
  async correct(): Promise<void> {
    const { content, pieceId } = this.state;
    if (pieceId === null) error(409, 'This score is not on the shelf yet.');
    const piece = await findPiece(this.db, pieceId);
    if (piece?.owner !== this.person || piece.removedAt !== null) error(404, 'The piece of this score is not on the shelf.');
    const name = `${fileName(content.head.title)}.musicxml`;
    const { bytes, intake } = await runTask('correction', { content, fileName: name }, undefined, undefined, this.person);
    if (intake.bars !== piece.bars)
      error(409, 'Bars were added or taken out, so that markings would lose their places; put it on the shelf as a piece of its own.');
    await correctPiece(this.db, pieceId, name, bytes, intake);
  }

  async remove(): Promise<void> {
    await writings.removeWriting(this.db, this.person, this.id);
  }

  /** The pages of paper that it is written from. */
  pages(): Promise<FacsimilePage[]> {
    return facsimiles.listPages(this.db, this.id);
  }

  async addPage(bytes: Uint8Array): Promise<{ id: number }> {
    const mime = facsimiles.pictureKind(bytes);
    if (!mime) error(415, 'This is no picture: PNG and JPEG are taken, and the pages of a PDF.');
    if ((await facsimiles.countPages(this.db, this.id)) >= facsimiles.MOST_PAGES)
      error(409, `A score has at most ${facsimiles.MOST_PAGES} pages of paper.`);
    return { id: await facsimiles.addPage(this.db, this.id, mime, bytes, []) };
  }

  async picture(page: number): Promise<{ mime: string; bytes: Buffer }> {
    const found = await facsimiles.findPicture(this.db, this.id, page);
    if (!found) error(404, 'This page is not here.');
    return found;
  }

  async cut(page: number, cuts: CutSystem[]): Promise<void> {
    if (!(await facsimiles.cutPage(this.db, this.id, page, cuts))) error(404, 'This page is not here.');
  }

  async removePage(page: number): Promise<void> {
    if (!(await facsimiles.removePage(this.db, this.id, page))) error(404, 'This page is not here.');
  }
}
