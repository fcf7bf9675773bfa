import toWav from 'audiobuffer-to-wav';
import { spanOf } from '$core/performance/transport';
import type { Performance } from '$core/performance/perform';
import type { Score } from '$core/score/model';
import type { Workspace } from '../workspace/workspace.svelte';
import { saveFile } from '../save-file';
import { gainOf, tone, voiceFor } from './instruments';

/** Seconds after the last note, for it to die away. */
const TAIL = 0.6;
/** Longest stretch that is rendered at once, in seconds. */
const LONGEST = 600;

/**
 * Renders a stretch of a performance to samples, without playing it.
 * @param plain with the plain tone, which begins at once and needs no samples
 */
export async function render(score: Score, performance: Performance, from: number, to: number, plain: boolean): Promise<AudioBuffer> {
  const T = await tone();
  const end = Math.min(to, from + LONGEST);
  const buffer = await T.Offline(
    async () => {
      const out = new T.Gain(1).toDestination();
      for (const part of score.parts) {
        const voice = await voiceFor(performance.instruments[part.index], plain);
        voice.instrument.connect(out);
        for (const n of performance.notes) {
          if (n.part !== part.index || n.onset < from - 1e-6 || n.onset >= end) continue;
          const loudest = voice.sustained ? Math.max(n.db, n.dbEnd, ...(n.inside ?? [])) : n.db;
          const at = Math.max(0, n.onset - from);
          const length = Math.max(0.03, Math.min(n.end, end) - n.onset);
          const gain = gainOf(loudest);
          if (n.turns && n.midi !== null) voice.inflected(out, { midi: n.midi, at, length, gain, turns: n.turns });
          else voice.instrument.triggerAttackRelease(T.Frequency(n.midi ?? 76, 'midi').toFrequency(), length, at, gain);
        }
      }
    },
    end - from + TAIL,
    2
  );
  return buffer.get()!;
}

/** Saves the selected bars as a WAV file, as they are set to sound now. */
export async function saveWav(workspace: Workspace): Promise<void> {
  const { score, player, selection } = workspace;
  const performance = workspace.playing.performed?.[player.version];
  if (!score || !performance) return;
  const span = spanOf(performance, selection.from, selection.to);
  const bars =
    selection.from === selection.to
      ? `bar-${score.measures[selection.from].number}`
      : `bars-${score.measures[selection.from].number}-${score.measures[selection.to].number}`;
  const name = `${(score.title || 'piece').toLowerCase().replace(/[^a-z0-9]+/g, '-')}-${bars}.wav`;
  saveFile(toWav(await render(score, performance, span.from, span.to, player.plain)), name, 'audio/wav');
}
