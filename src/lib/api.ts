import type { Player } from '$core/players/player';
import type { Act } from '$core/reading/log';
import type { Plan } from '$core/rehearsal/plan/plan';
import type { CutSystem } from '$core/writing/facsimile';
import type { WrittenChange } from '$core/writing/change';
import type { Written } from '$core/writing/written';
import type {
  ActsAfter,
  Appended,
  Comparison,
  EditionLine,
  FacsimilePage,
  FileLine,
  ImportAnswers,
  ImportLine,
  Missed,
  Letter,
  PagesLine,
  PracticeState,
  Refused,
  SourceCollation,
  SourceLine,
  WritingState
} from './shapes';

/** Everything that the browser asks of the server. What goes wrong is an ApiError: one sentence, with its cause. */

/** @param status of the answer; 0 where there was none */
export class ApiError extends Error {
  constructor(
    sentence: string,
    readonly status: number,
    cause?: unknown
  ) {
    super(sentence, { cause });
  }
}

/** How long an answer is waited for where one follows at once: a server that hangs must not hold everything up. */
const ANSWER_MS = 10_000;
/** Fetch standard, HTTP-network-or-cache fetch: at most 64 KiB may be under way with keepalive; a little is left for others. */
const KEEPALIVE_BYTES = 60_000;

/** Asks for lines while the work goes on. */
export const FOLLOWING = { accept: 'application/x-ndjson' };
const JSON_TYPE = { 'content-type': 'application/json' };
const BYTES_TYPE = { 'content-type': 'application/octet-stream' };
const body = (value: unknown): RequestInit => ({ headers: JSON_TYPE, body: JSON.stringify(value) });
const part = (text: string | number): string => encodeURIComponent(text);
const NAME_LENGTH = { file: 255, source: 80 };

async function answerOf(address: string, request: RequestInit): Promise<Response> {
  try {
    return await fetch(address, request);
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    if ((error as Error).name === 'TimeoutError') throw new ApiError('The server takes too long to answer.', 0, error);
    throw new ApiError('The server does not answer.', 0, error);
  }
}

async function refusal(response: Response, otherwise: string): Promise<ApiError> {
  const said = (await response.json().catch(() => null)) as { message?: string } | null;
  return new ApiError(said?.message ?? otherwise, response.status);
}

/** An answer that must be well. @param otherwise what is said where the server says nothing */
async function ask(address: string, otherwise: string, request: RequestInit = {}): Promise<Response> {
  const response = await answerOf(address, request);
  if (!response.ok) throw await refusal(response, otherwise);
  return response;
}

const askJson = async <T>(address: string, otherwise: string, request: RequestInit = {}): Promise<T> =>
  (await (await ask(address, otherwise, request)).json()) as T;

/**
 * An answer that comes in lines of JSON.
 * @throws ApiError when the server refuses or the answer breaks off
 */
async function* lines<T extends object>(address: string, request: RequestInit = {}): AsyncGenerator<Exclude<T, Refused>> {
  const response = await ask(address, 'The server could not do this.', { ...request, headers: { ...FOLLOWING, ...request.headers } });
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    const whole = (rest + (value ?? '')).split('\n');
    rest = whole.pop()!;
    for (const line of whole) {
      if (!line) continue;
      const said = JSON.parse(line) as T | Refused;
      if ('refused' in said) throw new ApiError((said as Refused).refused, response.status);
      yield said as Awaited<Exclude<T, Refused>>;
    }
    if (done) return;
  }
}

export const api = {
  /** The document of a source. */
  source: async (hash: string): Promise<string> => (await ask(`/api/sources/${hash}`, 'The score could not be fetched.')).text(),
  /** The first systems of a source as a picture; `narrow` for a phone. */
  pictureAddress: (hash: string, engine: string, line: 'wide' | 'narrow'): string =>
    `/api/sources/${hash}/picture?line=${line}&engine=${part(engine)}`,
  factsAddress: (hash: string, engine: string): string => `/api/sources/${hash}/facts?engine=${part(engine)}`,
  /** What an engine found in a source, as JSON. @param by the fetch of whoever loads a page */
  facts: async (hash: string, engine: string, by: typeof fetch): Promise<string> => {
    const answer = await by(api.factsAddress(hash, engine));
    if (!answer.ok) throw await refusal(answer, 'The study of the piece could not be fetched.');
    return answer.text();
  },
  /** The document that a reading is about: its source with the readings of other sources that were chosen. */
  chosenDocument: async (reading: number): Promise<string> =>
    (await ask(`/api/readings/${reading}/document`, 'The score could not be fetched.')).text(),

  /** Puts a file on the shelf. */
  importAddress: (fileName: string, { tunes, again }: ImportAnswers = {}): string =>
    `/api/pieces?name=${part(fileName.slice(0, NAME_LENGTH.file))}${tunes ? `&tunes=${tunes.join(',')}` : ''}${again ? '&again' : ''}`,
  importLine: (text: string): ImportLine => JSON.parse(text) as ImportLine,
  removePiece: (piece: number) => ask(`/api/pieces/${piece}`, 'The piece could not be taken off the shelf.', { method: 'DELETE' }),
  /** Puts a piece that lies in the bin back on the shelf. */
  takeBack: (piece: number) => ask(`/api/bin/${piece}`, 'The piece could not be put back.', { method: 'POST' }),
  /** Removes a piece in the bin for good. @param withEditions what was frozen of it goes too, and that is meant */
  removeForGood: (piece: number, withEditions: boolean) =>
    ask(`/api/bin/${piece}${withEditions ? '?editions' : ''}`, 'The piece could not be removed.', { method: 'DELETE' }),
  /** Keeps what is said of a player, known or new. */
  keepPlayer: ({ key, ...content }: Player) =>
    ask(`/api/players/${part(key)}`, 'The player could not be kept.', { method: 'PUT', ...body(content) }),
  removePlayer: (key: string) => ask(`/api/players/${part(key)}`, 'The player could not be taken away.', { method: 'DELETE' }),
  /** Puts a piece into a group of the shelf, or out of all. */
  moveToGroup: (piece: number, group: string | null) =>
    ask(`/api/pieces/${piece}`, 'The piece could not be moved.', {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ group })
    }),
  allArchivesAddress: '/api/archives',
  archiveAddress: (piece: number): string => `/api/pieces/${piece}/archive`,
  /** Makes a piece of its own of some bars. */
  excerpt: (piece: number, from: number, to: number) =>
    askJson<{ piece: number }>(`/api/pieces/${piece}/excerpt`, 'The excerpt could not be made.', { method: 'POST', ...body({ from, to }) }),

  /** Adds a source to a piece. */
  addSource: (piece: number, file: Blob, fileName: string, called: string) =>
    lines<SourceLine>(
      `/api/pieces/${piece}/sources?name=${part(fileName.slice(0, NAME_LENGTH.file))}&called=${part(called.slice(0, NAME_LENGTH.source))}`,
      { method: 'POST', headers: BYTES_TYPE, body: file }
    ),
  nameSource: (piece: number, name: string) =>
    ask(`/api/pieces/${piece}/sources`, 'The name could not be kept.', { method: 'PATCH', ...body({ name }) }),
  removeSource: (piece: number, source: number) =>
    ask(`/api/pieces/${piece}/sources/${source}`, 'The source could not be taken away.', { method: 'DELETE' }),
  collations: (piece: number, signal: AbortSignal) =>
    askJson<{ collations: SourceCollation[] }>(`/api/pieces/${piece}/collations`, 'The sources could not be compared.', { signal }),
  comparison: (piece: number, a: string, b: string, signal: AbortSignal) =>
    askJson<Comparison>(`/api/pieces/${piece}/comparison?a=${part(a)}&b=${part(b)}`, 'The two could not be compared.', { signal }),

  plans: async (): Promise<Plan[]> =>
    (await askJson<{ plans: Plan[] }>('/api/practice/plans', 'The plans could not be fetched.', { signal: AbortSignal.timeout(ANSWER_MS) }))
      .plans,
  practiceState: (plan: string) =>
    askJson<PracticeState>(`/api/practice/plans/${part(plan)}`, 'The plan could not be fetched.', {
      signal: AbortSignal.timeout(ANSWER_MS)
    }),
  /** Sends what was done to plans and logs of practice. @returns the plan as it is then, where it was changed */
  post: async ({ method, address, body: content }: Letter): Promise<Plan | null> => {
    const response = await ask(address, 'It could not be kept.', {
      method,
      signal: AbortSignal.timeout(ANSWER_MS),
      ...(content === null ? {} : body(content))
    });
    return response.status === 204 ? null : ((await response.json()) as Plan);
  },
  planAddress: (plan: string): string => `/api/practice/plans/${part(plan)}`,
  visitAddress: (plan: string, visit: string): string => `/api/practice/plans/${part(plan)}/visits/${part(visit)}`,
  mockAddress: (plan: string, mock: string): string => `/api/practice/plans/${part(plan)}/mocks/${part(mock)}`,
  calendarAddress: (plan: string, today: string): string => `/api/practice/plans/${part(plan)}/calendar?today=${today}`,
  /** Address of a plan on paper. @param parts of the book; all where none are named */
  bookAddress: (plan: string, today: string, parts: readonly string[] = []): string =>
    `/api/practice/plans/${part(plan)}/book?today=${today}${parts.length ? `&parts=${parts.join(',')}` : ''}`,
  /** How one piece goes into the next, in words. */
  joinWords: async (from: number, to: number): Promise<string> =>
    (await askJson<{ words: string }>(`/api/practice/joins/${from}/${to}`, 'The join could not be looked at.')).words,
  sheetAddress: (sheet: string): string => `/api/practice/sheets/${part(sheet)}`,
  sheet: async (sheet: string): Promise<string> =>
    (await ask(api.sheetAddress(sheet), 'The notes of this task could not be fetched.')).text(),
  keepSheet: (sheet: string, document: string) =>
    ask(api.sheetAddress(sheet), 'The notes of this task could not be kept.', { method: 'PUT', body: document }),

  copyReading: (piece: number, from: number, name: string) =>
    askJson<{ id: number }>(`/api/pieces/${piece}/readings`, 'The reading could not be copied.', {
      method: 'POST',
      ...body({ from, name })
    }),
  renameReading: (reading: number, name: string) =>
    ask(`/api/readings/${reading}`, 'The reading could not be renamed.', { method: 'PATCH', ...body({ name }) }),
  removeReading: (reading: number) => ask(`/api/readings/${reading}`, 'The reading could not be taken away.', { method: 'DELETE' }),

  beginWriting: (content: Written) =>
    askJson<{ id: number }>('/api/writings', 'The score could not be begun.', { method: 'POST', ...body(content) }),
  /** Saves what is written. @returns its revision, or what stands there where another window was quicker */
  saveWriting: async (
    id: number,
    saving: { base: number; save: string; change: WrittenChange }
  ): Promise<{ revision: number } | { conflict: WritingState }> => {
    const response = await answerOf(`/api/writings/${id}`, {
      method: 'PUT',
      signal: AbortSignal.timeout(ANSWER_MS),
      ...body(saving)
    });
    if (!response.ok && response.status !== 409) throw await refusal(response, 'The server did not say why.');
    return (await response.json()) as { revision: number } | { conflict: WritingState };
  },
  removeWriting: (id: number) => ask(`/api/writings/${id}`, 'It could not be thrown away.', { method: 'DELETE' }),
  facsimile: async (writing: number): Promise<FacsimilePage[]> =>
    (await askJson<{ pages: FacsimilePage[] }>(`/api/writings/${writing}/pages`, 'The pages could not be fetched.')).pages,
  addFacsimilePage: (writing: number, picture: Blob) =>
    askJson<{ id: number }>(`/api/writings/${writing}/pages`, 'The page could not be kept.', {
      method: 'POST',
      headers: BYTES_TYPE,
      body: picture
    }),
  facsimileAddress: (writing: number, page: number): string => `/api/writings/${writing}/pages/${page}`,
  cutFacsimile: (writing: number, page: number, cuts: CutSystem[]) =>
    ask(`/api/writings/${writing}/pages/${page}`, 'The cut could not be kept.', { method: 'PUT', ...body({ cuts }) }),
  removeFacsimilePage: (writing: number, page: number) =>
    ask(`/api/writings/${writing}/pages/${page}`, 'The page could not be taken away.', { method: 'DELETE' }),

  /** Opens a piece that was written or typed once more. @returns the number of its writing */
  openForWriting: (piece: number) =>
    askJson<{ id: number }>(`/api/pieces/${piece}/writing`, 'The score could not be opened.', { method: 'POST' }),
  /** The piece on the shelf follows what is written from now on. */
  correctPiece: (writing: number) => ask(`/api/writings/${writing}/piece`, 'The piece could not be corrected.', { method: 'POST' }),
  /** The piece that a writing stands on the shelf as. */
  shelveWriting: (id: number, piece: number) =>
    ask(`/api/writings/${id}/piece`, 'The shelf could not be told.', { method: 'PUT', ...body({ piece }) }),

  /** Acts of a reading after a revision of its history, a portion at once. @throws ApiError with status 410 when the server goes on from another history */
  actsAfter: (reading: number, revision: number, history: string) =>
    askJson<ActsAfter>(
      `/api/readings/${reading}/commands?after=${revision}&history=${part(history)}`,
      'The reading could not be fetched.',
      { signal: AbortSignal.timeout(ANSWER_MS) }
    ),
  /** Sends acts. @returns what became of them, or what was missed @throws ApiError with the status of a refusal */
  append: async (reading: number, history: string, base: number, acts: readonly Act[]): Promise<Appended | Missed> => {
    const sent = JSON.stringify({ history, base, acts });
    const response = await answerOf(`/api/readings/${reading}/commands`, {
      method: 'POST',
      headers: JSON_TYPE,
      signal: AbortSignal.timeout(ANSWER_MS),
      // What is typed as the window closes still arrives; browsers take only little so.
      keepalive: new Blob([sent]).size < KEEPALIVE_BYTES,
      body: sent
    });
    if (!response.ok && response.status !== 409) throw await refusal(response, 'The server did not say why.');
    return (await response.json()) as Appended | Missed;
  },

  /** The pages of an edition, each as soon as it is made. */
  pages: (reading: number, signal: AbortSignal) => lines<PagesLine>(`/api/readings/${reading}/pages`, { signal }),
  /** Address of an edition's file, of a reading or frozen. */
  fileAddress: (what: 'reading' | 'edition', id: number, format: string): string =>
    `/api/${what === 'reading' ? `readings/${id}/edition` : `editions/${id}`}?format=${format}`,
  /** The PDF of a reading, with how far it is meanwhile. */
  pdf: (reading: number) => lines<FileLine>(`${api.fileAddress('reading', reading, 'pdf')}&follow`),
  freeze: (reading: number, note: string) => lines<EditionLine>(`/api/readings/${reading}/editions`, { method: 'POST', ...body({ note }) })
};
