<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Act from '$lib/controls/Act.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { api } from '../api';
  import type { Comparison as Compared } from '../shapes';
  import { Button } from 'carbon-components-svelte';
  import type { ReadingComparison } from '$core/edition/compare';
  import { isNoticed } from '$core/performance/explain';
  import { clock } from '$core/score/tempo';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    piece: number;
    /** What is compared, "reading-1" or "edition-2". */
    states: [string, string];
    names: [string, string];
    onclose: () => void;
  }
  const { workspace, piece, states, names, onclose }: Props = $props();

  let answer = $state.raw<Compared | null>(null);
  let fault = $state('');
  let onlyMarks = $state(true);

  /** Louder or softer by so much is heard in a bar; common practice. */
  const HEARD_DB = 1;

  $effect(() => {
    const [a, b] = states;
    const stopped = new AbortController();
    answer = null;
    fault = '';
    api
      .comparison(piece, a, b, stopped.signal)
      .then((found) => (answer = found))
      .catch((e: Error) => {
        if (!stopped.signal.aborted) fault = e.message;
      });
    return () => stopped.abort();
  });

  const marked = (b: ReadingComparison['bars'][number]): boolean => b.added.length + b.removed.length + b.changed.length > 0;
  const heard = (b: ReadingComparison['bars'][number]): boolean =>
    isNoticed(b.seconds[1] - b.seconds[0], b.seconds[0]) || Math.abs((b.db[1] ?? 0) - (b.db[0] ?? 0)) >= HEARD_DB;
  const shown = $derived(answer?.comparison.bars.filter((b) => marked(b) || (!onlyMarks && heard(b))) ?? []);
  const db = (x: number | null): string => (x === null ? 'silent' : `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)} dB`);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="comparison" role="region" aria-label="Comparison" tabindex="0">
  <header>
    <h2>{names[0]} → {names[1]}</h2>
    <Button size="small" kind="ghost" on:click={onclose}>Back to the pages</Button>
  </header>
  {#if fault}<p role="alert">{fault}</p>
  {:else if !answer}<p class="quiet" role="status">Comparing …</p>
  {:else}
    {@const { comparison, readings } = answer}
    <p data-testid="compared-length">
      They last {clock(comparison.length[0])} and {clock(comparison.length[1])} ({(comparison.length[1] - comparison.length[0]).toFixed(1)} s).
      <Tick label="only bars whose markings differ" bind:checked={onlyMarks} />
    </p>
    {#if comparison.whole.length}
      <ul>
        {#each comparison.whole as w (w.what)}<li><em>{w.what}</em> {w.from} → {w.to}</li>{/each}
      </ul>
    {/if}
    {#if shown.length}
      <Figures heads={['Bar', 'What differs', 'Lasts', 'Loudness', 'Hear']} rows={shown} data-testid="compared-bars">
        {#snippet cell(b, column)}
          {#if column === 0}<strong>{b.bar}</strong>
          {:else if column === 1}
            {#each b.added as t, k (k)}<div><strong>added</strong> {t}</div>{/each}
            {#each b.removed as t, k (k)}<div><strong>removed</strong> <s>{t}</s></div>{/each}
            {#each b.changed as c, k (k)}<div><strong>changed</strong> {c.from} → {c.to}</div>{/each}
            {#if !marked(b)}<span class="quiet">the same markings, another sound</span>{/if}
          {:else if column === 2}{b.seconds[0].toFixed(2)} → {b.seconds[1].toFixed(2)} s
          {:else if column === 3}{db(b.db[0])} → {db(b.db[1])}
          {:else}
            {#each readings as reading, k (k)}<Act
                aria-label="Hear {names[k]}, {b.bar}"
                onclick={() => workspace.hearReading(reading, b.measure, b.measure)}>{k ? 'second' : 'first'}</Act
              >{/each}
          {/if}
        {/snippet}
      </Figures>
    {:else}
      <p class="quiet">No bar differs.</p>
    {/if}
  {/if}
</div>

<style>
  .comparison {
    overflow-y: auto;
    padding: 1rem 1.25rem 2rem;
  }

  header {
    display: flex;
    align-items: baseline;
    gap: 1rem;
  }

  p,
  ul {
    padding: 0.4rem 0;
    margin: 0;
  }

  ul {
    padding-left: 1.1rem;
  }
</style>
