import type { KeySignature, TimeSignature } from '../model.ts';
import { escapeXml } from '../musicxml/escape.ts';
import type { Pitch } from '../pitch.ts';

const CLEFS: Record<string, [sign: string, line: number]> = {
  treble: ['G', 2],
  bass: ['F', 4],
  alto: ['C', 3],
  tenor: ['C', 4],
  perc: ['percussion', 2],
  none: ['G', 2]
};

export const lyricsXml = (lyrics: string[]): string =>
  lyrics
    .map(
      (l, k) =>
        `<lyric number="${k + 1}"><syllabic>${l.endsWith('-') ? 'begin' : 'single'}</syllabic><text>${escapeXml(l.replace(/-$/, ''))}</text></lyric>`
    )
    .join('');

/** Letter steps of a transposition given in semitones, by the usual spelling (a tone is a second, …). */
export const diatonicOf = (semitones: number): number => {
  const up = Math.abs(semitones);
  return Math.sign(semitones) * (Math.floor(up / 12) * 7 + [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6][up % 12]);
};

export function keyXml(key: KeySignature): string {
  if (key.steps) {
    const altered = Object.entries(key.steps).filter(([, alter]) => alter);
    return `<key>${altered.map(([step, alter]) => `<key-step>${'CDEFGAB'[Number(step)]}</key-step><key-alter>${alter}</key-alter>`).join('')}</key>`;
  }
  return `<key><fifths>${key.fifths}</fifths>${key.mode ? `<mode>${key.mode}</mode>` : ''}</key>`;
}

export function timeXml(time: TimeSignature | null): string {
  if (!time) return '<time><senza-misura/></time>';
  const [beats, unit] = time.text!.split('/');
  return `<time${time.symbol ? ` symbol="${time.symbol}"` : ''}><beats>${beats}</beats><beat-type>${unit}</beat-type></time>`;
}

export const pitchXml = ({ step, alter, octave }: Pitch, struck: boolean): string =>
  struck
    ? `<unpitched><display-step>${'CDEFGAB'[step]}</display-step><display-octave>${octave}</display-octave></unpitched>`
    : `<pitch><step>${'CDEFGAB'[step]}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;

/** A clef by its name, "treble", "bass-8": its sign, its line from below, octaves up or down. */
export function clefOf(name: string): { sign: string; line: number; octaves: number } {
  const [sign, line] = CLEFS[name.replace(/[+-]8$/, '')] ?? CLEFS.treble;
  return { sign, line, octaves: name.endsWith('-8') ? -1 : name.endsWith('+8') ? 1 : 0 };
}

export function clefXml(name: string, staff: number | null): string {
  const { sign, line, octaves } = clefOf(name);
  const octave = octaves ? `<clef-octave-change>${octaves}</clef-octave-change>` : '';
  return `<clef${staff ? ` number="${staff}"` : ''}><sign>${sign}</sign><line>${line}</line>${octave}</clef>`;
}

const KINDS: Record<string, string> = {
  '': 'major',
  maj: 'major',
  m: 'minor',
  min: 'minor',
  '-': 'minor',
  '7': 'dominant',
  maj7: 'major-seventh',
  m7: 'minor-seventh',
  dim: 'diminished',
  o: 'diminished',
  dim7: 'diminished-seventh',
  aug: 'augmented',
  '+': 'augmented',
  sus4: 'suspended-fourth',
  sus: 'suspended-fourth',
  '6': 'major-sixth',
  m6: 'minor-sixth',
  '9': 'dominant-ninth',
  m7b5: 'half-diminished'
};

export function harmonyXml(text: string): string {
  const match = /^([A-G])([#b]?)([^/]*)(?:\/([A-G])([#b]?))?$/.exec(text.trim());
  if (!match) return `      <direction placement="above"><direction-type><words>${escapeXml(text)}</words></direction-type></direction>`;
  const note = (name: string, step: string, alter: string) =>
    `<${name}><${name}-step>${step}</${name}-step>${alter ? `<${name}-alter>${alter === '#' ? 1 : -1}</${name}-alter>` : ''}</${name}>`;
  // What the table does not know is left to the reader of the text.
  const kind = KINDS[match[3]] ?? 'other';
  return `      <harmony>${note('root', match[1], match[2])}<kind text="${escapeXml(match[3])}">${kind}</kind>${match[4] ? note('bass', match[4], match[5]) : ''}</harmony>`;
}
