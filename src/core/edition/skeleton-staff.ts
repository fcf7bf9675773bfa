import { staffNumber, type Frame } from './mei.ts';

/** Number of the small staff above the part; no score has so many staves. */
const STAFF = 999;
/** Size of a small staff against the usual one; common practice. */
const SIZE = '65%';

const inner = (xml: string, tag: string): string => new RegExp(`<${tag}\\b[^>]*>([\\s\\S]*?)</${tag}>`).exec(xml)?.[1] ?? '';

/** The measures of an MEI file by their place. */
const measures = (mei: string): string[] => [...mei.matchAll(/<measure\b[^>]*>([\s\S]*?)<\/measure>/g)].map((m) => m[1]);

/**
 * Puts a skeleton above a part as a small staff: MEI of the same bars with one staff goes into the MEI of the score.
 * Bars of the score are found by their ids ("m12").
 * @param from index of the first measure of both
 */
export function withSkeleton(mei: string, skeleton: string, frame: Frame, part: number, from: number): string {
  const below = staffNumber(frame, part, 1);
  const definition = /<staffDef\b[^>]*?(?:\/>|>[\s\S]*?<\/staffDef>)/.exec(skeleton)?.[0] ?? '';
  const small = definition
    .replace(/\bxml:id="[^"]*"/g, '')
    .replace(/^<staffDef\b/, `<staffDef scale="${SIZE}"`)
    .replace(/^(<staffDef\b[^>]*?)\bn="1"/, `$1n="${STAFF}"`)
    .replace(/<label\b[^>]*(?:\/>|>[\s\S]*?<\/label>)/g, '');
  let result = mei.replace(new RegExp(`<staffDef\\b[^>]*\\bn="${below}"`), (tag) => small + tag);
  measures(skeleton).forEach((content, k) => {
    const at = result.indexOf(`xml:id="m${from + k}"`);
    const staff = at < 0 ? -1 : result.indexOf(`<staff`, at);
    if (staff < 0) return;
    const own = `<staff n="${STAFF}">${inner(content, 'staff')}</staff>`;
    const ties = content.match(/<tie\b[^>]*\/>/g)?.join('') ?? '';
    const close = result.indexOf('</measure>', staff);
    result = result.slice(0, staff) + own + result.slice(staff, close) + ties + result.slice(close);
  });
  return result;
}
