<script lang="ts">
  import { untrack } from 'svelte';
  import { ornamentStaff } from '$core/edition/ornament-staff';
  import { screenSystems } from '$core/edition/screen';
  import type { SetChunk } from '$core/edition/systems';
  import { ornamentsIn } from '$core/performance/realised';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { smallEngraver } from '../music/engraver';
  import SystemView from '../music/SystemView.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Of the staff against the usual one. */
  const SIZE = 1.15;
  /** Share of a line that is filled: small notes stand close. */
  const FILLED = 0.9;
  /** More than these are not written out at once. */
  const MOST = 8;

  let width = $state(0);
  let version = $state(0);
  let chunks = $state.raw<SetChunk[]>([]);
  const ornaments = $derived(
    workspace.score
      ? ornamentsIn(workspace.score, workspace.facts, workspace.reading, workspace.selection.from, workspace.selection.to).slice(0, MOST)
      : []
  );
  const document = $derived(ornaments.length && workspace.score ? ornamentStaff(workspace.score, ornaments) : null);
  const options = $derived({ line: Math.max(240, width), size: SIZE, sounding: false, version });

  $effect(() => {
    if (!document || !width) return;
    const score = readMusicXml(document);
    smallEngraver().open(document, score);
    chunks = screenSystems(score, [], width * FILLED, SIZE);
    untrack(() => version++);
  });
</script>

{#if ornaments.length}
  <section data-testid="ornaments">
    <h3>Ornaments written out</h3>
    <div class="staff" bind:clientWidth={width}>
      {#each chunks as chunk (`${version}-${chunk.from}`)}
        <SystemView engraver={smallEngraver()} {chunk} {options} markings={[]} rows={[]} eager reserve={70} />
      {/each}
    </div>
    <ul>
      {#each ornaments as o (o.note.id)}<li class:tight={!o.fits}>{o.place}: {o.says}</li>{/each}
    </ul>
  </section>
{/if}

<style>
  section {
    padding-top: 0.7rem;
  }

  ul {
    list-style: none;
    padding: 0;
    margin: 0;
    font-size: 0.9rem;
  }

  .tight {
    color: var(--edition);
  }
</style>
