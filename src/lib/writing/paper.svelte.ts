import { barRegions, proposeCuts, type BarRegion, type CutSystem, type GreyPage } from '$core/writing/facsimile';
import { api } from '../api';
import type { FacsimilePage } from '../shapes';
import { sentenceOf } from '../workspace/latest';

/** Pixels across at which pages are kept: enough to read a bar that is shown large. */
const KEPT_WIDTH = 2000;
/** Pixels across at which systems and bars are looked for. */
const LOOKED_WIDTH = 1200;
const QUALITY = 0.85;

type Picture = { width: number; height: number; draw: (canvas: HTMLCanvasElement) => Promise<void> };

function canvasOf(width: number, height: number): HTMLCanvasElement {
  return Object.assign(document.createElement('canvas'), { width: Math.round(width), height: Math.round(height) });
}

/** The pages of a PDF, drawn when they are asked for. */
async function* pdfPages(file: File): AsyncGenerator<{ picture: Picture; of: number }> {
  const pdf = await import('pdfjs-dist');
  pdf.GlobalWorkerOptions.workerSrc = new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url).href;
  const task = pdf.getDocument({ data: new Uint8Array(await file.arrayBuffer()) });
  let opened;
  try {
    opened = await task.promise;
  } catch {
    throw new Error(`“${file.name}” is a damaged PDF, or it is locked.`);
  }
  try {
    for (let n = 1; n <= opened.numPages; n++) {
      const page = await opened.getPage(n);
      const { width, height } = page.getViewport({ scale: 1 });
      const draw = async (canvas: HTMLCanvasElement): Promise<void> => {
        await page.render({ canvas, viewport: page.getViewport({ scale: canvas.width / width }) }).promise;
      };
      yield { picture: { width: KEPT_WIDTH, height: (KEPT_WIDTH * height) / width, draw }, of: opened.numPages };
    }
  } finally {
    await task.destroy();
  }
}

async function* pagesOf(file: File): AsyncGenerator<{ picture: Picture; of: number }> {
  if (file.type === 'application/pdf' || /\.pdf$/i.test(file.name)) return yield* pdfPages(file);
  const image = await createImageBitmap(file).catch(() => {
    throw new Error(`“${file.name}” is no picture that this browser can read: PNG and JPEG are taken, and PDF.`);
  });
  const draw = (canvas: HTMLCanvasElement): Promise<void> => {
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return Promise.resolve();
  };
  yield { picture: { width: image.width, height: image.height, draw }, of: 1 };
}

function greyOf(canvas: HTMLCanvasElement): GreyPage {
  const scale = Math.min(1, LOOKED_WIDTH / canvas.width);
  const small = canvasOf(canvas.width * scale, canvas.height * scale);
  const context = small.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(canvas, 0, 0, small.width, small.height);
  const { data } = context.getImageData(0, 0, small.width, small.height);
  const grey = new Uint8Array(small.width * small.height);
  // Luma as in ITU-R BT.601.
  for (let k = 0; k < grey.length; k++) grey[k] = 0.299 * data[4 * k] + 0.587 * data[4 * k + 1] + 0.114 * data[4 * k + 2];
  return { width: small.width, height: small.height, data: grey };
}

/** The paper that a score is written from: its pages, and how they are cut. */
export class Paper {
  pages = $state.raw<FacsimilePage[]>([]);
  progress = $state('');
  refused = $state('');
  private before = $state.raw<FacsimilePage[][]>([]);
  readonly regions: BarRegion[] = $derived(barRegions(this.pages.map((p) => p.cuts)));
  readonly canUndo = $derived(this.before.length > 0);

  constructor(readonly writing: number) {}

  async open(): Promise<void> {
    try {
      this.pages = await api.facsimile(this.writing);
    } catch (error) {
      this.refused = sentenceOf(error);
    }
  }

  /** Takes in pictures and PDFs, page by page; a file that is damaged is told and the others go on. */
  async add(files: readonly File[]): Promise<void> {
    this.refused = '';
    for (const file of files) {
      try {
        let n = 0;
        for await (const { picture, of } of pagesOf(file)) {
          n++;
          this.progress = `${file.name}: page ${n} of ${of}`;
          const scale = Math.min(1, KEPT_WIDTH / picture.width);
          const canvas = canvasOf(picture.width * scale, picture.height * scale);
          await picture.draw(canvas);
          const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
          if (!blob) throw new Error(`“${file.name}” is larger than this browser can draw.`);
          const { id } = await api.addFacsimilePage(this.writing, blob);
          const cuts = proposeCuts(greyOf(canvas));
          if (cuts.length) await api.cutFacsimile(this.writing, id, cuts);
          this.pages = [...this.pages, { id, cuts }];
        }
      } catch (error) {
        this.refused = sentenceOf(error);
      }
    }
    this.progress = '';
  }

  cut(page: number, cuts: CutSystem[]): void {
    this.before = [...this.before, this.pages];
    this.put(this.pages.map((p, k) => (k === page ? { ...p, cuts } : p)));
  }

  undo(): void {
    const last = this.before.at(-1);
    if (!last) return;
    this.before = this.before.slice(0, -1);
    this.put(last);
  }

  private put(pages: FacsimilePage[]): void {
    const changed = pages.filter((p) => this.pages.find((q) => q.id === p.id)?.cuts !== p.cuts);
    this.pages = pages;
    for (const p of changed) api.cutFacsimile(this.writing, p.id, p.cuts).catch((error: unknown) => (this.refused = sentenceOf(error)));
  }

  async remove(page: number): Promise<void> {
    try {
      await api.removeFacsimilePage(this.writing, this.pages[page].id);
      this.pages = this.pages.filter((_, k) => k !== page);
      this.before = [];
    } catch (error) {
      this.refused = sentenceOf(error);
    }
  }
}
