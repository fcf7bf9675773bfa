<script lang="ts">
  import { cmp } from '$core/score/fraction';
  import { tempoMarks } from '$core/score/tempo';
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  const HEIGHT = 18;

  /** Tempo in quarters a minute, as a stepped line between the slowest and the fastest mark. */
  const tempo = $derived.by(() => {
    const { score } = workspace;
    const given = score ? tempoMarks(score) : [];
    // Every part may carry the tempo; one line for one moment is enough.
    const marks = given
      .filter((m, k) => k === 0 || cmp(m.start, given[k - 1].start) !== 0)
      .map((m) => ({ at: m.start, value: (m.low + m.high) / 2 }));
    if (!marks.length) return { line: '', labels: [] };
    const low = Math.min(...marks.map((m) => m.value)) * 0.8;
    const high = Math.max(...marks.map((m) => m.value)) * 1.2;
    const y = (v: number): number => HEIGHT - 2 - ((v - low) / (high - low)) * (HEIGHT - 4);
    const points = marks.flatMap((m, k) => {
      const end = marks[k + 1]?.at;
      return [
        `${scale.x(m.at).toFixed(1)},${y(m.value).toFixed(1)}`,
        `${(end ? scale.x(end) : scale.width).toFixed(1)},${y(m.value).toFixed(1)}`
      ];
    });
    return { line: points.join(' '), labels: marks.map((m) => ({ x: scale.x(m.at), text: `♩ ${Math.round(m.value)}` })) };
  });
</script>

{#if tempo.line}<polyline class="tempo" points={tempo.line} />{:else}<text x="4" y="13">no tempo is printed</text>{/if}
{#each tempo.labels.filter((l) => l.x >= 0 && l.x <= scale.width) as label, k (k)}<text class="tempo-name" x={label.x + 3} y="13"
    >{label.text}</text
  >{/each}
