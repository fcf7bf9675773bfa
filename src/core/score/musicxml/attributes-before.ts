import { toNumber } from '../fraction.ts';
import type { AttributeChange, Part } from '../model.ts';
import { escapeXml } from './escape.ts';

/** Attributes in force just before a measure begins. */
function stateBefore(
  part: Part,
  measure: number
): {
  divisions: AttributeChange['divisions'];
  keys: AttributeChange['keys'];
  time: AttributeChange['time'];
  clefs: Map<number, NonNullable<AttributeChange['clefs']>[number]['clef']>;
  transpose: AttributeChange['transpose'];
} {
  const state: ReturnType<typeof stateBefore> = {
    divisions: undefined,
    keys: undefined,
    time: undefined,
    clefs: new Map(),
    transpose: undefined
  };
  for (const change of part.changes) {
    const here = change.measure === measure && change.onset.n === 0;
    if (change.measure > measure || (change.measure === measure && !here)) break;
    if (change.divisions) state.divisions = change.divisions;
    if (change.transpose) state.transpose = change.transpose;
    // What the first measure itself says at its beginning need not be said again, but divisions are harmless.
    if (here) {
      if (change.keys) state.keys = undefined;
      if (change.time) state.time = undefined;
      for (const { staff } of change.clefs ?? []) state.clefs.delete(staff);
      continue;
    }
    if (change.keys) state.keys = change.keys;
    if (change.time) state.time = change.time;
    for (const { staff, clef } of change.clefs ?? []) state.clefs.set(staff, clef);
  }
  return state;
}

/**
 * The <attributes> element that a run of measures needs when it stands alone: divisions, key, meter, staves,
 * clefs and transposition in force before its first measure. `printTime` shows the meter.
 */
export function attributesBefore(part: Part, measure: number, printTime = false): string {
  if (measure === 0) return '';
  const state = stateBefore(part, measure);
  const keys = (state.keys ?? [])
    .map(({ staff, key }) => {
      const content = key.steps
        ? Object.entries(key.steps)
            .map(([step, alter]) => `<key-step>${'CDEFGAB'[Number(step)]}</key-step><key-alter>${alter}</key-alter>`)
            .join('')
        : `<fifths>${key.fifths}</fifths>`;
      return `<key${staff === null ? '' : ` number="${staff}"`}>${content}</key>`;
    })
    .join('');
  const time = state.time?.text
    ? `<time${printTime ? '' : ' print-object="no"'}>${state.time.text
        .split(/\+(?=\d+\/)/)
        .map((t) => `<beats>${t.split('/')[0]}</beats><beat-type>${t.split('/')[1]}</beat-type>`)
        .join('')}</time>`
    : '';
  const clefs = [...state.clefs]
    .sort((a, b) => a[0] - b[0])
    .map(
      ([staff, clef]) =>
        `<clef number="${staff}"><sign>${escapeXml(clef.sign)}</sign>${clef.line ? `<line>${clef.line}</line>` : ''}${clef.octave ? `<clef-octave-change>${clef.octave}</clef-octave-change>` : ''}</clef>`
    )
    .join('');
  const by = state.transpose ?? part.transpose;
  const transpose = by.chromatic ? `<transpose><diatonic>${by.diatonic}</diatonic><chromatic>${by.chromatic}</chromatic></transpose>` : '';
  return `<attributes><divisions>${state.divisions ? toNumber(state.divisions) : 1}</divisions>${keys}${time}${part.staves > 1 ? `<staves>${part.staves}</staves>` : ''}${clefs}${transpose}</attributes>`;
}
