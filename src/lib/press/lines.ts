/**
 * Reads an answer that comes in lines of JSON.
 * @throws Error with one sentence when the server refuses or the answer breaks off
 */
export async function* jsonLines<T extends object>(address: string, request: RequestInit = {}): AsyncGenerator<T> {
  const response = await fetch(address, request).catch((error: Error) => {
    throw error.name === 'AbortError' ? error : new Error('The server does not answer.');
  });
  if (!response.ok || !response.body)
    throw new Error(((await response.json().catch(() => null)) as { message?: string } | null)?.message ?? 'The server could not do this.');
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    const lines = (rest + (value ?? '')).split('\n');
    rest = lines.pop()!;
    for (const line of lines) {
      if (!line) continue;
      const said: unknown = JSON.parse(line);
      const { refused } = said as { refused?: string };
      if (refused) throw new Error(refused);
      yield said as Awaited<T>;
    }
    if (done) return;
  }
}

/** Hands a file to the browser for saving. */
export function saveFile(bytes: BlobPart, name: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
