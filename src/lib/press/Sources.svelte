<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { invalidateAll } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { api } from '../api';
  import { sentenceOf } from '../workspace/latest';
  import type { SourceCollation } from '../shapes';

  interface Props {
    piece: number;
    /** Name of the source that the pages follow. */
    source: string;
    others: { id: number; hash: string; name: string }[];
    fault: string;
    workspace: Workspace;
    collations: SourceCollation[];
    onlook: () => void;
  }
  const { piece, source, others, fault, workspace, collations, onlook }: Props = $props();

  let called = $state('');
  let chooser: HTMLInputElement;
  let stage = $state<string | null>(null);
  let refused = $state('');

  async function add(file: File): Promise<void> {
    stage = 'sending';
    refused = '';
    try {
      const name = called.trim() || file.name.replace(/\.[^.]+$/, '');
      for await (const line of api.addSource(piece, file, file.name, name)) if ('stage' in line) stage = line.stage;
      called = '';
      await invalidateAll();
    } catch (e) {
      refused = sentenceOf(e);
    } finally {
      stage = null;
      chooser.value = '';
    }
  }

  async function change(ask: () => Promise<unknown>): Promise<void> {
    try {
      await ask();
      await invalidateAll();
    } catch (e) {
      refused = sentenceOf(e);
    }
  }

  async function rename(name: string): Promise<void> {
    if (!name.trim() || name === source) return;
    await change(() => api.nameSource(piece, name));
  }

  async function remove(id: number): Promise<void> {
    await change(() => api.removeSource(piece, id));
  }

  const decided = (c: SourceCollation): number =>
    c.differences.filter((d) => workspace.reading.sourceChoices.some((x) => x.source === c.hash && x.difference === d.id)).length;
</script>

<section>
  <h3>The pages follow</h3>
  <Field label="Name of the source that the pages follow" quietly value={source} maxlength="80" onchange={(value) => rename(value)} />
</section>

<section>
  <h3>Compared with it</h3>
  {#each others as o (o.id)}
    {@const c = collations.find((x) => x.hash === o.hash)}
    <p data-testid="other-source">
      <strong>{o.name}</strong>{#if c}: {c.differences.length} difference{c.differences.length === 1 ? '' : 's'}, {decided(c)} decided{:else if !fault}:
        being compared …{/if}
      <Act onclick={() => remove(o.id)}>take away</Act>
    </p>
  {:else}
    <p class="quiet">Nothing yet. Add another print or the manuscript as encoded: bar by bar, everything in which they differ is listed.</p>
  {/each}
  {#if fault}<p role="alert">{fault}</p>{/if}
  {#if collations.some((c) => c.differences.length)}<Button size="small" kind="tertiary" on:click={onlook}>Look at the differences</Button
    >{/if}
</section>

<section>
  <h3>Add a source</h3>
  <Field label="Called" bind:value={called} maxlength="80" placeholder="the first print, the manuscript …" />
  <input
    class="visually-hidden"
    type="file"
    tabindex="-1"
    aria-label="File of the source"
    accept=".musicxml,.xml,.mxl,.abc"
    bind:this={chooser}
    onchange={(e) => e.currentTarget.files?.[0] && add(e.currentTarget.files[0])}
    data-testid="source-chooser"
  />
  <Button size="small" kind="tertiary" disabled={stage !== null} on:click={() => chooser.click()}>Choose its file</Button>
  {#if stage}<p class="quiet" role="status">{stage} …</p>{/if}
  {#if refused}<p role="alert">{refused}</p>{/if}
</section>

<style>
  section {
    padding-top: 0.8rem;
  }

  input {
    padding: 0.2rem 0.4rem;
    width: 100%;
    box-sizing: border-box;
  }

  p {
    padding: 0.25rem 0;
  }
</style>
