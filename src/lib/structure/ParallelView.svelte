<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import type { ParallelFact } from '$core/analysis/facts';
  import { parallelWords } from '$core/analysis/words';
  import { placeName } from '$core/reading/moments';
  import { measureAt } from '$core/score/position';
  import SystemView from '../music/SystemView.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, chosen, onchoose }: { workspace: Workspace; chosen: string | null; onchoose: (id: string) => void } = $props();

  /** Of the staff against the usual one. */
  const SIZE = 0.9;
  /** Bars of a place that are set on one line. */
  const MOST = 8;

  let width = $state(0);
  let at = $state(0);
  let list = $state<HTMLUListElement>();
  const score = $derived(workspace.score!);
  // The largest first.
  const all = $derived([...workspace.facts.parallels].sort((a, b) => b.weight - a.weight));
  const index = $derived(
    Math.max(
      0,
      all.findIndex((p) => p.id === chosen)
    )
  );
  const place = $derived<ParallelFact | undefined>(all[index]);
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const options = $derived({
    line,
    size: SIZE,
    sounding: workspace.pitch === 'sounding',
    version: workspace.engraving
  });
  const difference = $derived(place?.differences[Math.min(at, Math.max(0, place.differences.length - 1))]);

  function chunkOf(span: ParallelFact['a']) {
    const from = measureAt(score, span.start).index;
    const to = Math.min(measureAt(score, span.last).index + 1, from + MOST);
    return { from, to, systems: [from] };
  }

  const marks = $derived.by(() => {
    const classes = new Map<string, string>();
    for (const d of place?.differences ?? []) {
      const name = d === difference ? 'chosen' : 'differs';
      if (d.noteA) classes.set(d.noteA, name);
      if (d.noteB) classes.set(d.noteB, name);
    }
    return classes;
  });

  function show(k: number): void {
    if (!all.length) return;
    at = 0;
    onchoose(all[(k + all.length) % all.length].id);
  }

  function key(event: KeyboardEvent): void {
    const count = place?.differences.length ?? 0;
    if (event.key === 'ArrowDown' && count) at = Math.min(count - 1, at + 1);
    else if (event.key === 'ArrowUp' && count) at = Math.max(0, at - 1);
    else if (event.key === 'PageDown') show(index + 1);
    else if (event.key === 'PageUp') show(index - 1);
    else return;
    event.preventDefault();
    list?.children[at]?.scrollIntoView({ block: 'nearest' });
  }
</script>

<section class="parallels" aria-label="Parallel places side by side">
  {#if place}
    <header>
      <h3>
        {placeName(score, place.a.start)} and {placeName(score, place.b.start)}
        <span class="quiet">{parallelWords(place)}; {place.evidence}</span>
      </h3>
      <span class="quiet">{index + 1} of {all.length}</span>
      <Act onclick={() => show(index - 1)}>before</Act>
      <Act onclick={() => show(index + 1)}>next</Act>
    </header>
    <div class="two">
      <div class="music" bind:clientWidth={width}>
        {#each [place.a, place.b] as span, k (k)}
          {@const chunk = chunkOf(span)}
          {#key `${chunk.from}-${chunk.to}`}
            <SystemView engraver={workspace.engraver} {chunk} {options} markings={[]} rows={[]} eager reserve={90} noteClasses={marks} />
          {/key}
        {/each}
      </div>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (a list to be walked with the arrow keys) -->
      <ul
        bind:this={list}
        tabindex="0"
        onkeydown={key}
        aria-label="Differences; arrow keys walk through them, Page keys go to the next place"
        data-testid="differences"
      >
        {#each place.differences as d, k (k)}
          <li class:now={k === at}>
            <Act look="row" onclick={() => (at = k)}>{placeName(score, d.b)}: {d.what}</Act>
          </li>
        {:else}
          <li class="quiet">No difference: note for note the same.</li>
        {/each}
      </ul>
    </div>
  {:else}
    <p class="quiet">No two places of this piece are the same music, as far as can be seen. If you hear it otherwise, say so under Form.</p>
  {/if}
</section>

<style>
  .parallels {
    height: 100%;
    display: flex;
    flex-direction: column;
    padding: 0.4rem 1.25rem;
    box-sizing: border-box;
  }

  header {
    display: flex;
    gap: 0.8rem;
    align-items: baseline;
  }

  h3 {
    flex: 1;
  }

  .two {
    flex: 1;
    min-height: 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 17rem;
    gap: 1rem;
  }

  .music {
    overflow-y: auto;
  }

  ul {
    margin: 0;
    padding: 0.2rem;
    list-style: none;
    overflow-y: auto;
    font-size: 0.88rem;
  }

  li {
    padding: 0.1rem 0.3rem;
  }

  .now {
    background: var(--selected);
  }
</style>
