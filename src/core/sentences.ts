/** With a capital; Roman numerals keep theirs, which tell the mode. */
export const capital = (text: string): string =>
  /^[b♭]?[iv]+[o%°ø+]?\d*(?:\/\S+)?\s/.test(text) ? text : text.charAt(0).toUpperCase() + text.slice(1);

/** Each as a sentence of its own, one after the other. */
export const inSentences = (texts: readonly string[]): string => texts.map((t) => capital(t.trim()).replace(/[^.!?]$/, '$&.')).join(' ');

/** "4, 8 and 12"; with a mark other than the comma where the items hold commas themselves. */
export const listed = (items: readonly string[], mark = ','): string =>
  items.length < 2 ? items.join('') : `${items.slice(0, -1).join(`${mark} `)}${mark === ',' ? '' : mark} and ${items.at(-1)}`;
