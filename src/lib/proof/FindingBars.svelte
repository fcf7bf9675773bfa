<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import { placed } from '$core/edition/mei';
  import type { Finding } from '$core/proof/finding';
  import { measureAt } from '$core/score/position';
  import SystemView from '$lib/music/SystemView.svelte';
  import type { Workspace } from '$lib/workspace/workspace.svelte';

  /** The bars around a finding, with all that is marked there. */
  const { workspace, finding, onbar }: { workspace: Workspace; finding: Finding; onbar: () => void } = $props();

  /** Least pixels of the line, and size of the staff against the usual one. */
  const LEAST = 320;
  const SIZE = 0.9;
  let width = $state(0);

  const score = $derived(workspace.score);
  const bar = $derived(score ? measureAt(score, finding.start).index : 0);
  const chunk = $derived({ from: Math.max(0, bar - 1), to: Math.min(score?.measures.length ?? 1, bar + 2) });
  const markings = $derived(
    placed(workspace.reading.markings, (id) => workspace.note(id)).filter((m) => {
      const at = score ? measureAt(score, m.start).index : -1;
      return at >= chunk.from && at < chunk.to;
    })
  );
  const options = $derived({
    line: Math.max(LEAST, Math.round(width / 40) * 40),
    size: SIZE,
    sounding: workspace.pitch === 'sounding',
    version: workspace.engraving
  });
</script>

<div class="bars" bind:clientWidth={width} data-testid="finding-bars">
  {#if score && width}
    <h2>{workspace.barName(score.measures[bar])}</h2>
    <SystemView
      engraver={workspace.engraver}
      chunk={{ ...chunk, systems: [chunk.from] }}
      {options}
      {markings}
      rows={[]}
      selection={{ from: bar, to: bar }}
      eager
      reserve={130}
    />
    <p class="acts">
      <Act onclick={() => workspace.hearReading(workspace.reading, chunk.from, chunk.to - 1)}>Hear these bars</Act>
      <Act onclick={onbar}>Go to the bar</Act>
    </p>
  {/if}
</div>

<style>
  .acts {
    display: flex;
    gap: 1rem;
    padding-top: 0.5rem;
  }
</style>
