import type { AbcTune } from '../score/abc/model.ts';
import { barsOf, layersOf } from '../score/abc/write.ts';
import { lt, ZERO } from '../score/fraction.ts';
import type { KeySignature, Score, TimeSignature } from '../score/model.ts';
import { readMusicXml } from '../score/musicxml/read.ts';
import { newId } from './edits.ts';
import { documentOf } from './to-tune.ts';
import { lengthOf, timeOf, type Lane, type Sound, type Written, type WrittenBar } from './written.ts';

/** A typed tune as a written score, and what the writing room does not know of it, in words. */
export interface Taken {
  written: Written;
  lost: string[];
}

const meterOf = (time: TimeSignature | null): string =>
  time?.symbol === 'common' ? 'C' : time?.symbol === 'cut' ? 'C|' : (time?.text ?? '');

/** Takes a tune of one part into the writing room. @returns null where it has several parts, or more than two voices on a staff */
export function fromTune(tune: AbcTune): Taken | null {
  const byId = new Map(tune.voices.map((v) => [v.id, v]));
  const layout = tune.layout.length ? tune.layout : tune.voices.map((v) => [[v.id]]);
  if (layout.length !== 1) return null;
  const staves = layout[0].map((ids) => ids.flatMap((id) => byId.get(id) ?? [])).filter((s) => s.length);
  const voices = staves.flatMap((s, k) => s.map((voice) => ({ staff: k + 1, voice, bars: barsOf(voice) })));
  const opening = voices.map((v) => (v.bars[0]?.events.length === 0 ? (v.bars.shift()?.end ?? null) : null))[0];
  const count = Math.max(...voices.map((v) => v.bars.length));
  const lanes: Lane[] = [];
  const sources: { voice: number; layer: number }[] = [];
  staves.forEach((_, k) => {
    let voice = 1;
    voices.forEach((v, n) => {
      if (v.staff !== k + 1) return;
      const layers = Math.max(1, ...v.bars.map((b) => layersOf(b.events).length));
      for (let layer = 0; layer < layers; layer++) {
        lanes.push({ staff: v.staff, voice: voice++ });
        sources.push({ voice: n, layer });
      }
    });
  });
  if (lanes.some((l) => l.voice > 2) || staves.length > 2) return null;
  const lost = new Set<string>();
  const bars = Array.from({ length: count }, (_, k): WrittenBar => {
    const end = voices[0].bars[k]?.end;
    const before = k ? voices[0].bars[k - 1]?.end : opening;
    let key: KeySignature | undefined;
    let meter: string | undefined;
    let letter: string | undefined;
    const sounds = sources.map(({ voice, layer }): Sound[] => {
      let words: Sound['words'];
      const own: Sound[] = [];
      for (const e of layersOf(voices[voice].bars[k]?.events ?? [])[layer] ?? []) {
        if (e.kind === 'sound') {
          const { joined, ...rest } = e;
          void joined;
          own.push({ ...rest, id: newId(), ...(words && { words }) });
          words = undefined;
        } else if (e.kind === 'words') words = { text: e.text, placement: e.placement };
        else if (e.kind === 'key' && !own.length) key = e.key;
        else if (e.kind === 'meter' && !own.length) meter = meterOf(e.time);
        else if (e.kind === 'part') letter = e.text;
        else if (e.kind !== 'bar' && e.kind !== 'overlay')
          lost.add(`bar ${k + 1}: a ${e.kind === 'chord-symbol' ? 'chord symbol' : `change of ${e.kind}`}`);
      }
      return own;
    });
    return {
      id: newId(),
      lanes: sounds,
      ...(meter !== undefined && k > 0 && { meter }),
      ...(key && k > 0 && { key }),
      ...(letter !== undefined && { letter }),
      ...(before?.repeatStart && { repeatStart: true }),
      ...(end?.repeatEnd && { repeatEnd: end.repeatEnd }),
      ...(before?.ending && { ending: before.ending }),
      ...(end?.style === 'light-light' && { doubleBar: true })
    };
  });
  const full = tune.time?.quarters ?? null;
  const first = bars[0].lanes.map(lengthOf).reduce((a, b) => (lt(a, b) ? b : a), ZERO);
  const tempo = tune.tempo?.kind === 'tempo' ? tune.tempo : null;
  return {
    written: {
      head: {
        title: tune.title,
        composer: tune.composer,
        instrument: voices.map((v) => v.voice.name).find(Boolean) ?? '',
        transpose: voices[0].voice.transpose,
        clefs: staves.map((s) => s[0].clef),
        key: tune.key,
        meter: meterOf(tune.time),
        tempo: { words: tempo?.text ?? '', unit: tempo?.unit ?? null, perMinute: tempo?.perMinute ?? null },
        upbeat: full && lt(first, full) && first.n > 0 && count > 1 ? first : null
      },
      lanes,
      bars
    },
    lost: [...lost, ...tune.remarks]
  };
}

/**
 * The same with the ids that its notes have in a score that was read from it, so that what hangs on them stays.
 * @returns null where the two are not note for note the same
 */
export function withIdsOf(written: Written, score: Pick<Score, 'notes'>): Written | null {
  const own = readMusicXml(documentOf(written)).notes;
  if (own.length !== score.notes.length) return null;
  const ids = new Map<string, string[]>();
  for (const [k, { id }] of own.entries()) {
    const sound = /^(w[\w-]{8}|.*?-rest-\d+)/.exec(id)?.[1] ?? id;
    ids.set(sound, [...(ids.get(sound) ?? []), score.notes[k].id]);
  }
  return {
    ...written,
    bars: written.bars.map((b) => ({
      ...b,
      lanes: b.lanes.map((sounds) => sounds.map((s) => (ids.has(s.id) ? { ...s, ids: ids.get(s.id) } : s)))
    }))
  };
}

export const isMeter = (text: string): boolean => text === '' || timeOf(text) !== null;
