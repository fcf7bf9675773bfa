import { escapeXml } from '../score/musicxml/escape.ts';

/** An ossia ready to be put over its bars: by measure of the piece what its staff holds, and the curves and words beside it. */
export interface OssiaMei {
  id: string;
  label: string;
  /** Number of its staff among all of the engraving. */
  staff: number;
  bars: { measure: number; layers: string; beside: string }[];
}

/** What may go along beside the staff: curves that hang on its own notes. */
const BESIDE = /<(slur|tie|trill|mordent|turn|fermata)\b[^>]*startid="#[^"]*"[^>]*\/>/g;

/** Takes what stands in the measures of an ossia's own MEI. @param from the first measure that it stands for */
export function ossiaMei(mei: string, { id, label, staff, from }: { id: string; label: string; staff: number; from: number }): OssiaMei {
  const own = (text: string): string =>
    text.replace(/xml:id="([^"]*)"/g, `xml:id="${escapeXml(id)}-$1"`).replace(/((?:start|end)id)="#([^"]*)"/g, `$1="#${escapeXml(id)}-$2"`);
  const bars = [...mei.matchAll(/<measure\b[\s\S]*?<\/measure>/g)].map(([measure], k) => ({
    measure: from + k,
    layers: own((/<staff\b[^>]*>([\s\S]*?)<\/staff>/.exec(measure)?.[1] ?? '').trim()),
    beside: own([...measure.matchAll(BESIDE)].map(([x]) => x).join(''))
  }));
  return { id, label, staff, bars };
}

/** Puts ossias over their bars. MEI 5.1, ossia and oStaff. */
export function withOssias(mei: string, ossias: readonly OssiaMei[]): string {
  return ossias.reduce((text, o) => o.bars.reduce((t, bar, k) => withBar(t, o, bar, k === 0), text), mei);
}

function withBar(mei: string, { id, label, staff }: OssiaMei, bar: OssiaMei['bars'][number], first: boolean): string {
  const at = mei.indexOf(`xml:id="m${bar.measure}"`);
  const close = at < 0 ? -1 : mei.indexOf('</measure>', at);
  if (close < 0 || !bar.layers) return mei;
  const staffTag = new RegExp(`<staff\\b(?=[^>]*\\bn="${staff}")[^>]*>[\\s\\S]*?</staff>`);
  const inside = mei.slice(at, close);
  const found = staffTag.exec(inside);
  if (!found) return mei;
  const name = `${escapeXml(id)}${first ? '' : `-${bar.measure}`}`;
  const ossia = `<ossia xml:id="${name}" resp="#editor"><oStaff n="${staff}" type="editorial ossia">${bar.layers}</oStaff>${found[0]}</ossia>`;
  const firstNote = /<(?:note|chord|rest)\b[^>]*xml:id="([^"]*)"/.exec(bar.layers)?.[1];
  const word =
    first && firstNote
      ? `<dir xml:id="${escapeXml(id)}-word" type="editorial ossia" place="above" startid="#${firstNote}"><rend fontstyle="italic" fontsize="80%">${escapeXml(label)}</rend></dir>`
      : '';
  return mei.slice(0, at) + inside.replace(staffTag, () => ossia) + bar.beside + word + mei.slice(close);
}
