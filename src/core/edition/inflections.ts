/**
 * The engraver knows the inflections of jazz and does not draw them: their curves are laid beside the heads here, in the same way for
 * those that are printed and those that are the editor's. Drawings are our own.
 */

interface Inflected {
  /** Id of the note, or of the chord. */
  note: string;
  /** Id of the sign itself. */
  id: string;
  editorial: boolean;
  sign: string;
}

/** Curves in staff spaces from the middle of the head; x counts from its right edge, or from its left one where it leads to it. */
const CURVES: Record<string, { before: boolean; d: string }> = {
  fall: { before: false, d: 'M.2 0C.7 0 1 .4 1.05 1.3' },
  longfall: { before: false, d: 'M.2 0C.8 0 1.2 .5 1.35 2.6' },
  doit: { before: false, d: 'M.2 0C.7 0 1 -.4 1.1 -1.3' },
  bend: { before: false, d: 'M.2 -.1C.4 .7 .8 .7 1 -.1' },
  flip: { before: false, d: 'M.2 -.1C.3 .35 .5 .35 .6 -.1' },
  scoop: { before: true, d: 'M-1 .9C-.8 .3 -.5 .05 -.2 0' },
  plop: { before: true, d: 'M-1 -1.2C-.95 -.5 -.6 -.05 -.2 0' },
  smear: { before: true, d: 'M-1.25 1.3C-1.2 .8 -.95 1.1 -.85 .7C-.75 .35 -.55 .6 -.45 .25C-.38 .05 -.3 0 -.2 0' }
};
const LINE = 0.2;
/** Room that dots take. */
const DOTS = 0.7;
/** Drawn by the engraver, round the head; named here, so that it can be taken hold of. */
const GHOST = 'ghost';

/** Inflections of an encoding, in its order. */
function inflectionsIn(mei: string): Inflected[] {
  const found: Inflected[] = [];
  if (!/artic="(?:fall|longfall|doit|bend|flip|scoop|plop|smear)"|head.mod="paren" label=/.test(mei)) return found;
  let note = '';
  for (const [tag] of mei.matchAll(/<(?:note|chord|artic)\b[^>]*>/g)) {
    const id = /xml:id="([^"]*)"/.exec(tag)?.[1] ?? '';
    if (!tag.startsWith('<artic')) {
      note = id;
      const ghost = /head\.mod="paren" label="([^"]*)"/.exec(tag)?.[1];
      if (ghost) found.push({ note, id: ghost, editorial: true, sign: GHOST });
    } else {
      const sign = /artic="([^"]*)"/.exec(tag)?.[1] ?? '';
      if (sign in CURVES) found.push({ note, id, editorial: tag.includes('editorial inflection'), sign });
    }
  }
  return found;
}

/** A drawer for the pictures of one encoding. */
export function inflectionsOver(mei: string): (svg: string) => string {
  const signs = inflectionsIn(mei);
  if (!signs.length) return (svg) => svg;
  return (svg) =>
    signs.reduce((drawn, { note, id, editorial, sign }) => {
      const at = note ? drawn.indexOf(`id="${note}"`) : -1;
      if (at < 0) return drawn;
      if (sign === GHOST)
        return (
          drawn.slice(0, at) +
          drawn.slice(at).replace(/<use [^>]*#E26A[^>]*>\s*<use [^>]*#E26B[^>]*>/, `<g id="${id}" class="inflection editorial">$&</g>`)
        );
      // The head: where it stands, how large it is, and which of its shapes it has.
      const head = /class="notehead"[^>]*>\s*<use [^>]*?#(E0A[0-9A-F])[^>]*translate\(([-\d.]+), ?([-\d.]+)\) scale\(([\d.]+)/.exec(
        drawn.slice(at, at + 1500)
      );
      if (!head) return drawn;
      const [x, y, scale] = head.slice(2).map(Number);
      const space = 250 * scale;
      const width = (head[1] === 'E0A2' ? 1.69 : 1.18) * space;
      const { before, d } = CURVES[sign];
      // Beside the dots that stand behind a head, and the accidental before it.
      const own = drawn.slice(at, at + 3000).split(/class="(?:note|rest|chord|measure)"/)[1] ?? '';
      const dots = /class="dots/.test(own) ? DOTS * space : 0;
      const accidental = /class="accid[^>]*>\s*<use [^>]*translate\(([-\d.]+)/.exec(own);
      const left = before && accidental ? Number(accidental[1]) - x : 0;
      const path = d.replace(/[-.\d]+ [-.\d]+/g, (pair) => {
        const [dx, dy] = pair.split(' ').map(Number);
        return `${Math.round(x + (before ? left : width + dots) + dx * space)} ${Math.round(y + dy * space)}`;
      });
      const sized = `<path d="${path}" fill="none" stroke="currentColor" stroke-width="${Math.round(LINE * space)}" stroke-linecap="round"/>`;
      const group = `<g id="${id}" class="artic inflection${editorial ? ' editorial' : ''}">${sized}</g>`;
      const open = drawn.lastIndexOf('<g', at);
      const inside = drawn.indexOf('>', open) + 1;
      return drawn.slice(0, inside) + group + drawn.slice(inside);
    }, svg);
}
