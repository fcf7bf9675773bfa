import type { Marking, MarkingKind } from '$core/reading/markings';
import { SOURCES, type SourceKey } from '$core/style/bibliography';

export const KIND_NAMES: Record<MarkingKind, string> = {
  dynamic: 'Dynamic',
  hairpin: 'Hairpin',
  slur: 'Slur',
  articulation: 'Articulation',
  accent: 'Accent',
  breath: 'Breath',
  comma: 'Comma',
  tempo: 'Tempo word',
  metronome: 'Metronome mark',
  fermata: 'Fermata',
  text: 'Text',
  fingering: 'Fingering',
  bowing: 'Bowing'
};

/** A marking in a few words: "Dynamic mf", "Slur". */
export const markingName = (m: Pick<Marking, 'kind' | 'value'>): string =>
  m.kind === m.value ? KIND_NAMES[m.kind] : `${KIND_NAMES[m.kind]}: ${m.value.replace(/-/g, ' ')}`;

export const sourceNames = (keys: readonly SourceKey[] | undefined): string => (keys ?? []).map((k) => SOURCES[k]?.short ?? k).join('; ');
