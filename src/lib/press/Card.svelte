<script lang="ts">
  import Words from '$lib/controls/Words.svelte';
  import { Button } from 'carbon-components-svelte';
  import { draftCard } from '$core/edition/text/card';
  import { LIMITS } from '$core/style/limits';
  import type { Edition } from '$core/edition/text/edition';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, edition }: { workspace: Workspace; edition: Edition | null } = $props();

  const draft = $derived(edition ? draftCard(edition) : []);
  const lines = $derived(workspace.reading.card ?? draft);
  const fields = $derived(Array.from({ length: LIMITS.toRemember }, (_, k) => lines[k] ?? ''));

  function write(k: number, text: string): void {
    const next = fields.map((f, i) => (i === k ? text.trim() : f)).filter(Boolean);
    if (JSON.stringify(next) !== JSON.stringify(lines)) workspace.act({ type: 'write-card', lines: next });
  }
</script>

<p class="quiet">Five things at most that are to be remembered on the stand. Form, tempo, peak and breaths come from the reading.</p>
{#if edition}
  {#each fields as text, k (k)}
    <Words label="To remember, {k + 1}" rows={2} maxlength={300} value={text} onchange={(value) => write(k, value)} />
  {/each}
  <div class="row">
    {#if workspace.reading.card}<Button size="small" kind="ghost" on:click={() => workspace.act({ type: 'write-card', lines: null })}
        >Draft them again</Button
      >{/if}
    {#if workspace.reading.pages.variant !== 'card'}<Button
        size="small"
        kind="tertiary"
        on:click={() => workspace.act({ type: 'set-pages', pages: { ...workspace.reading.pages, variant: 'card' } })}>Show the card</Button
      >{/if}
  </div>
{:else}
  <p class="quiet" role="status">The card is being drafted …</p>
{/if}

<style>
  p {
    padding-top: 0.6rem;
  }

  .row {
    display: flex;
    gap: 0.5rem;
    padding-top: 0.6rem;
  }
</style>
