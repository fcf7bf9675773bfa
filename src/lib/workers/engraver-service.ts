import { Engraving, type Toolkit } from '$core/edition/engraving';
import type { Frame, RowEntry } from '$core/edition/mei';
import { screenLook } from '$core/edition/screen';
import type { SetChunk } from '$core/edition/systems';
import type { Ossia } from '$core/reading/ossia';
import type { Marking } from '$core/markings/marking';

export interface EngraveOptions {
  /** Width of the line in pixels, and the size of the staff against the usual one. */
  line: number;
  size: number;
  /** Transposing parts are drawn as they sound. */
  sounding: boolean;
  /** Counts the pictures of one score, so that what was drawn of an earlier one is drawn again. */
  version: number;
}

export interface EngraveJob {
  chunk: SetChunk;
  options: EngraveOptions;
  markings: Marking[];
  rows: RowEntry[];
  /** What stands over its bars. */
  ossias?: Ossia[];
}

/** The engraver of one score, in a worker: the MEI of each chunk is made once. */
export class EngraverService {
  private frame: Frame = { measures: [], parts: [] };
  private readonly known = new Map<string, string>();

  constructor(private readonly toolkit: Promise<Toolkit>) {}

  /** Another score is engraved from now on. */
  open(frame: Frame): void {
    this.frame = frame;
    this.known.clear();
  }

  /** A chunk as SVG. @param document its MusicXML; null where it was given before */
  async engrave({ chunk, options, markings, rows, ossias }: EngraveJob, document: string | null): Promise<string> {
    const engraving = new Engraving(await this.toolkit);
    const key = `${chunk.from}-${chunk.to}`;
    if (document !== null) this.known.set(key, engraving.mei(document));
    const look = { ...screenLook(options.line, options.size), sounding: options.sounding };
    return engraving.chunk(this.known.get(key)!, this.frame, chunk, markings, rows, look, false, ossias)(1);
  }
}
