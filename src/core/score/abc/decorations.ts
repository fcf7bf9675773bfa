/**
 * What an ABC decoration becomes in MusicXML: an element inside <notations>, or a direction before the note.
 * Source of the names: ABC 2.1, section 4.14, and MusicXML 4.0.
 */
export type DecorationTarget =
  | { group: 'articulations' | 'ornaments' | 'technical'; xml: string }
  | { group: 'notations'; xml: string }
  | { group: 'direction'; xml: string; placement: 'above' | 'below' };

const articulation = (name: string): DecorationTarget => ({ group: 'articulations', xml: `<${name}/>` });
const ornament = (name: string): DecorationTarget => ({ group: 'ornaments', xml: `<${name}/>` });
const technical = (xml: string): DecorationTarget => ({ group: 'technical', xml });
const above = (xml: string): DecorationTarget => ({ group: 'direction', xml, placement: 'above' });
const below = (xml: string): DecorationTarget => ({ group: 'direction', xml, placement: 'below' });
const wedge = (type: string): DecorationTarget => below(`<wedge type="${type}"/>`);

const DYNAMICS = ['pppp', 'ppp', 'pp', 'p', 'mp', 'mf', 'f', 'ff', 'fff', 'ffff', 'sfz', 'sf', 'sfp', 'fp', 'rfz', 'fz'];

export const DECORATIONS: Record<string, DecorationTarget> = {
  ...Object.fromEntries(DYNAMICS.map((d) => [d, below(`<dynamics><${d}/></dynamics>`)])),
  staccato: articulation('staccato'),
  tenuto: articulation('tenuto'),
  accent: articulation('accent'),
  '>': articulation('accent'),
  emphasis: articulation('accent'),
  marcato: articulation('strong-accent'),
  '^': articulation('strong-accent'),
  wedge: articulation('staccatissimo'),
  breath: { group: 'articulations', xml: '<breath-mark>comma</breath-mark>' },
  shortphrase: { group: 'articulations', xml: '<breath-mark>comma</breath-mark>' },
  longphrase: articulation('caesura'),
  trill: ornament('trill-mark'),
  turn: ornament('turn'),
  roll: ornament('turn'),
  invertedturn: ornament('inverted-turn'),
  delayedturn: ornament('delayed-turn'),
  mordent: ornament('mordent'),
  lowermordent: ornament('mordent'),
  uppermordent: ornament('inverted-mordent'),
  pralltriller: ornament('inverted-mordent'),
  upbow: technical('<up-bow/>'),
  downbow: technical('<down-bow/>'),
  open: technical('<open-string/>'),
  thumb: technical('<thumb-position/>'),
  snap: technical('<snap-pizzicato/>'),
  plus: technical('<stopped/>'),
  ...Object.fromEntries(['0', '1', '2', '3', '4', '5'].map((n) => [n, technical(`<fingering>${n}</fingering>`)])),
  fermata: { group: 'notations', xml: '<fermata type="upright"/>' },
  invertedfermata: { group: 'notations', xml: '<fermata type="inverted"/>' },
  arpeggio: { group: 'notations', xml: '<arpeggiate/>' },
  'crescendo(': wedge('crescendo'),
  '<(': wedge('crescendo'),
  'crescendo)': wedge('stop'),
  '<)': wedge('stop'),
  'diminuendo(': wedge('diminuendo'),
  '>(': wedge('diminuendo'),
  'diminuendo)': wedge('stop'),
  '>)': wedge('stop'),
  segno: above('<segno/>'),
  coda: above('<coda/>'),
  fine: above('<words>Fine</words>'),
  'D.C.': above('<words>D.C.</words>'),
  'D.S.': above('<words>D.S.</words>'),
  dacapo: above('<words>D.C.</words>'),
  dacoda: above('<words>To Coda</words>'),
  sfzp: below('<dynamics><other-dynamics>sfzp</other-dynamics></dynamics>')
};
