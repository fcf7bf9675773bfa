/** How long the address of a file that was handed over stays good. */
const GOOD_MS = 10_000;

/** Hands a file to the browser for saving. */
export function saveFile(bytes: BlobPart, name: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), GOOD_MS);
}
