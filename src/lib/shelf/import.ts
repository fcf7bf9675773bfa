/** What an import reports while it goes on. */
export interface ImportProgress {
  name: string;
  stage: string;
  /** Share sent, 0 to 1, until the server has the whole file. */
  sent: number;
}

type Line = { stage: string } | { piece: number } | { refused: string };

/**
 * Sends a file to the shelf and follows the work on it.
 * @param signal stops the sending and the work; nothing is stored then
 * @returns the number of the new piece
 * @throws Error with one sentence for the user
 */
export async function importFile(file: File, progress: (p: ImportProgress) => void, signal?: AbortSignal): Promise<number> {
  // Read first: a dropped file may be gone by the time the request takes it.
  const bytes = await file.arrayBuffer().catch(() => {
    throw new Error('The file could not be read from this computer.');
  });
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    let read = 0;
    let last: Line | null = null;
    request.open('POST', `/api/pieces?name=${encodeURIComponent(file.name.slice(0, 255))}`);
    request.upload.onprogress = (e) => progress({ name: file.name, stage: 'sending', sent: e.total ? e.loaded / e.total : 0 });
    request.onprogress = () => {
      const lines = request.responseText.slice(read).split('\n');
      read = request.responseText.length - lines.pop()!.length;
      for (const text of lines) {
        if (!text || request.status !== 200) continue;
        last = JSON.parse(text) as Line;
        if ('stage' in last) progress({ name: file.name, stage: last.stage, sent: 1 });
      }
    };
    signal?.addEventListener('abort', () => request.abort());
    request.onabort = () => fail(new Error('The import was stopped; nothing was stored.'));
    request.onerror = () => fail(new Error('The file could not be sent; the server did not answer.'));
    request.onload = () => {
      if (request.status !== 200) {
        let message = 'The file was not taken.';
        try {
          message = (JSON.parse(request.responseText) as { message?: string }).message ?? message;
        } catch {
          // The answer is no JSON; the plain sentence stands.
        }
        fail(new Error(message));
      } else if (last && 'piece' in last) done(last.piece);
      else fail(new Error(last && 'refused' in last ? last.refused : 'The work on the file broke off; nothing was stored.'));
    };
    // Without a type the server would take the body for none.
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.send(bytes);
  });
}
