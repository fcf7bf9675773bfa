import { api, ApiError, FOLLOWING } from '../api';
import type { ImportAnswers, ImportLine } from '../shapes';

/** What an import reports while it goes on. */
export interface ImportProgress {
  name: string;
  stage: string;
  /** Share sent, 0 to 1, until the server has the whole file. */
  sent: number;
}

/** How an import ended: on the shelf, or something has to be said before it can be. */
export type Imported = Exclude<ImportLine, { stage: string } | { refused: string }>;

/**
 * Sends a file to the shelf and follows the work on it.
 * @param answers what was said before: which tunes of the file, and that it may stand twice
 * @param signal stops the sending and the work; nothing is stored then
 * @throws ApiError with one sentence for the user
 */
export async function importFile(
  file: File,
  answers: ImportAnswers,
  progress: (p: ImportProgress) => void,
  signal?: AbortSignal
): Promise<Imported> {
  // Read first: a dropped file may be gone by the time the request takes it.
  const bytes = await file.arrayBuffer().catch((error: unknown) => {
    throw new ApiError('The file could not be read from this computer.', 0, error);
  });
  // A request of this kind tells how much has been sent, which fetch does not.
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    const failed = (sentence: string): void => fail(new ApiError(sentence, request.status));
    let read = 0;
    let last: ImportLine | null = null;
    request.open('POST', api.importAddress(file.name, answers));
    request.upload.onprogress = (e) => progress({ name: file.name, stage: 'sending', sent: e.total ? e.loaded / e.total : 0 });
    request.onprogress = () => {
      const lines = request.responseText.slice(read).split('\n');
      read = request.responseText.length - lines.pop()!.length;
      for (const text of lines) {
        if (!text || request.status !== 200) continue;
        last = api.importLine(text);
        if ('stage' in last) progress({ name: file.name, stage: last.stage, sent: 1 });
      }
    };
    const stop = (): void => request.abort();
    signal?.addEventListener('abort', stop);
    request.onabort = () => {
      // The answer had come before it was stopped.
      if (last && !('stage' in last) && !('refused' in last)) done(last);
      else failed('The import was stopped; nothing was stored.');
    };
    request.onerror = () => failed('The file could not be sent; the server did not answer.');
    request.onload = () => {
      if (request.status !== 200) failed(messageIn(request.responseText));
      else if (!last || 'stage' in last) failed('The work on the file broke off; nothing was stored.');
      else if ('refused' in last) failed(last.refused);
      else done(last);
    };
    request.onloadend = () => signal?.removeEventListener('abort', stop);
    // Without a type the server would take the body for none.
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.setRequestHeader('accept', FOLLOWING.accept);
    request.send(bytes);
  });
}

/** The sentence in a refusal; a plain one where the answer is no JSON. */
function messageIn(text: string): string {
  const otherwise = 'The file was not taken.';
  try {
    return (JSON.parse(text) as { message?: string }).message ?? otherwise;
  } catch {
    return otherwise;
  }
}
