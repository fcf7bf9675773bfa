<script lang="ts">
  import Act from '../controls/Act.svelte';
  import Tick from '../controls/Tick.svelte';
  import { barLabel } from '$core/score/position';
  import { MOST_OSSIA_BARS, ossiaFault, type Ossia } from '$core/reading/ossia';
  import OssiaForm from './OssiaForm.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** Other ways to play the chosen bars, which stand over them. */
  const { workspace }: { workspace: Workspace } = $props();

  const selection = $derived(workspace.selection);
  const here = $derived(workspace.reading.ossias.filter((o) => o.from <= selection.to && o.to >= selection.from));
  /** The one that is written or changed; "new" for one that is none yet. */
  let writing = $state<string | null>(null);
  const bars = $derived(selection.to - selection.from + 1);

  const nameOf = ({ from, to }: Ossia): string => {
    const { measures } = workspace.score!;
    return from === to ? barLabel(measures, measures[from]) : `bars ${measures[from].number}–${measures[to].number}`;
  };
  const change = (ossia: Ossia, what: Partial<Ossia>): void => workspace.act({ type: 'keep-ossia', ossia: { ...ossia, ...what } });

  // Other bars, another form.
  $effect(() => {
    void selection.from;
    void selection.to;
    writing = null;
  });
</script>

{#if workspace.score}
  <section data-testid="ossias">
    {#if here.length}<h3>Or else</h3>{/if}
    {#each here as ossia (ossia.id)}
      {@const fault = ossiaFault(workspace.score, ossia)}
      <div class="item">
        <p><strong>{ossia.label}</strong> <span class="quiet">for {nameOf(ossia)}</span></p>
        {#if fault}<p class="wrong">It cannot stand here: {fault}</p>{/if}
        <p class="acts not-printed">
          <Tick label="over its bars" checked={ossia.printed} onchange={(printed: boolean) => change(ossia, { printed })} />
          <Tick label="heard instead" checked={ossia.played} onchange={(played: boolean) => change(ossia, { played })} />
          <Act onclick={() => (writing = ossia.id)}>Change it</Act>
          <Act onclick={() => workspace.act({ type: 'remove-ossia', id: ossia.id })}>Take it away</Act>
        </p>
      </div>
      {#if writing === ossia.id}<OssiaForm {workspace} {ossia} ondone={() => (writing = null)} />{/if}
    {/each}
    <div class="not-printed">
      {#if writing === 'new'}
        <OssiaForm {workspace} ossia={null} ondone={() => (writing = null)} />
      {:else if bars <= MOST_OSSIA_BARS}
        <Act onclick={() => (writing = 'new')}>Write another way for {bars === 1 ? 'this bar' : 'these bars'} …</Act>
      {/if}
    </div>
  </section>
{/if}

<style>
  section {
    padding-top: 0.7rem;
  }

  h3 {
    color: var(--muted);
    padding-bottom: 0.15rem;
  }

  .item {
    padding-bottom: 0.4rem;
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: center;
  }
</style>
