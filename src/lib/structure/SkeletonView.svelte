<script lang="ts">
  import OneOf from '$lib/controls/OneOf.svelte';
  import { untrack } from 'svelte';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { screenSystems } from '$core/edition/screen';
  import type { SetChunk } from '$core/edition/systems';
  import { Engraver } from '../music/engraver';
  import SystemView from '../music/SystemView.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Of the staff against the usual one. */
  const SIZE = 0.95;

  let level = $state<1 | 2>(1);
  let width = $state(0);
  let version = $state(0);
  let chunks = $state.raw<SetChunk[]>([]);
  // The skeleton is another score than the page, so it has an engraver of its own while it is shown.
  const engraver = new Engraver();
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const options = $derived({ line, size: SIZE, sounding: false, version });
  const range = $derived(workspace.selection);
  const whole = $derived(range.from === range.to);

  $effect(() => {
    const last = (workspace.score?.measures.length ?? 1) - 1;
    // One bar is no range: then the skeleton of the whole is shown.
    workspace.study.askSkeleton({ from: whole ? 0 : range.from, to: whole ? last : range.to, level });
  });

  $effect(() => {
    const document = workspace.study.skeleton?.document;
    if (!document || !line) return;
    const score = readMusicXml(document);
    engraver.open(document, score);
    chunks = screenSystems(score, [], line, SIZE);
    untrack(() => version++);
  });

  $effect(() => () => engraver.close());
</script>

<section class="skeleton" aria-label="Skeleton of the line">
  <header>
    <h3>Skeleton {whole ? 'of the whole line' : 'of the selected bars'}</h3>
    <OneOf
      label="What stays"
      quietly
      across
      bind:value={level}
      options={[
        { value: 1, label: 'all beats' },
        { value: 2, label: 'strong beats' }
      ]}
    />
    <span class="quiet">The line without its ornament notes. Select a range of bars for a part of it.</span>
  </header>
  <div class="music" bind:clientWidth={width} data-testid="skeleton">
    {#if workspace.study.skeleton && !workspace.study.skeleton.document}<p class="quiet">No note of these bars stands on a beat.</p>{/if}
    {#each chunks as chunk (`${version}-${chunk.from}`)}
      <SystemView {engraver} {chunk} {options} markings={[]} rows={[]} eager reserve={90} />
    {/each}
  </div>
</section>

<style>
  .skeleton {
    height: 100%;
    display: flex;
    flex-direction: column;
    padding: 0.4rem 1.25rem;
    box-sizing: border-box;
  }

  header {
    display: flex;
    gap: 1rem;
    align-items: baseline;
  }

  .music {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
  }
</style>
