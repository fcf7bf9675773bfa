import { escapeXml } from '../../score/musicxml/escape.ts';
import type { Face, Glyphs, Matrix, Page, PageItem, Picture, Stroke } from './page.ts';

const MUTED = '#444';
const FAMILY = "Tinos, 'Times New Roman', Times, serif";
/** Family under which the music font stands in the file. */
const MUSIC_FAMILY = 'Nuvelo music';

const styleOf = (face: Face): string =>
  (face.startsWith('bold') ? ' font-weight="bold"' : '') + (face.endsWith('italic') ? ' font-style="italic"' : '');
const number = (x: number): string => String(Math.round(x * 1000) / 1000);
const matrix = (m: Matrix): string => `matrix(${m.map(number).join(' ')})`;

function stroke(s: Stroke): string {
  const type = s.editorial ? ' class="editorial"' : '';
  switch (s.kind) {
    case 'glyph':
      return `<use${type} href="#${s.glyph}" transform="${matrix(s.at)}"/>`;
    case 'outline': {
      const form = `${s.fill ? '' : ' fill="none"'} stroke-width="${s.width}"${s.dash ? ` stroke-dasharray="${s.dash}"` : ''}${s.cap ? ` stroke-linecap="${s.cap}"` : ''}${s.join ? ` stroke-linejoin="${s.join}"` : ''}`;
      const at = s.at.join() === '1,0,0,1,0,0' ? '' : ` transform="${matrix(s.at)}"`;
      return `<path${type}${at} d="${s.d}"${form}/>`;
    }
    default: {
      const runs = s.runs.map(
        (r) =>
          `<tspan font-size="${number(r.size)}"${r.face === 'music' ? ` font-family="${MUSIC_FAMILY}"` : styleOf(r.face)}${r.spacing ? ` letter-spacing="${r.spacing}"` : ''}>${escapeXml(r.text)}</tspan>`
      );
      const anchor = s.anchor === 'start' ? '' : ` text-anchor="${s.anchor}"`;
      return `<text${type} x="${number(s.x)}" y="${number(s.y)}"${anchor} stroke="none">${runs.join('')}</text>`;
    }
  }
}

const glyphsOf = (picture: Picture): string[] => picture.strokes.flatMap((s) => (s.kind === 'glyph' ? [s.glyph] : []));

function item(i: PageItem): string {
  switch (i.kind) {
    case 'text':
      return `<text x="${number(i.x)}" y="${number(i.y)}" font-size="${i.size}"${styleOf(i.face)}${i.quiet ? ` fill="${MUTED}"` : ''} xml:space="preserve">${escapeXml(i.text)}</text>`;
    case 'rule':
      return `<path d="M${number(i.x)} ${number(i.y)}h${number(i.width)}" stroke="${MUTED}" stroke-width="0.6"/>`;
    default:
      return `<g fill="currentColor" stroke="currentColor" transform="${matrix([i.scale, 0, 0, i.scale, i.x, i.y])}">${i.picture.strokes.map(stroke).join('')}</g>`;
  }
}

/**
 * A page as an SVG picture that stands on its own.
 * @param musicFont the music font as WOFF2 in base64, for signs within words; null where none are
 */
export function pageSvg(page: Page, glyphs: Glyphs, musicFont: string | null, title: string): string {
  const used = new Set(page.items.flatMap((i) => (i.kind === 'picture' ? glyphsOf(i.picture) : [])));
  const defs = [...used].map((code) => `<path id="${code}" d="${glyphs.get(code) ?? ''}" stroke="none"/>`).join('');
  const music = page.items.some(
    (i) => i.kind === 'picture' && i.picture.strokes.some((s) => s.kind === 'words' && s.runs.some((r) => r.face === 'music'))
  );
  const face =
    music && musicFont ? `<style>@font-face{font-family:'${MUSIC_FAMILY}';src:url(data:font/woff2;base64,${musicFont})}</style>` : '';
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${number(page.width)} ${number(page.height)}" width="${number(page.width)}pt" height="${number(page.height)}pt" font-family="${FAMILY}" color="#000" role="img">` +
    `<title>${escapeXml(`${title}, page ${page.number}`)}</title>${face}<defs>${defs}</defs><rect width="100%" height="100%" fill="#fff"/>${page.items.map(item).join('')}</svg>`
  );
}
