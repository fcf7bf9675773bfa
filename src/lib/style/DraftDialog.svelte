<script lang="ts">
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import OneOf from '$lib/controls/OneOf.svelte';
  import { Modal, SelectItem } from 'carbon-components-svelte';
  import { tempoMarks } from '$core/score/tempo';
  import type { Amount } from '$core/style/draft-weights';
  import { PERIODS, PROFILES, type Period } from '$core/style/profiles';
  import { guessPeriod } from '$core/survey/beginnings';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, onclose }: { workspace: Workspace; onclose: () => void } = $props();

  const AMOUNTS: { value: Amount; label: string }[] = [
    { value: 'spare', label: 'spare: what cannot be left out, a mark in four bars' },
    { value: 'usual', label: 'usual: what an editor would print, a mark in two or three bars' },
    { value: 'rich', label: 'rich: as much as a page bears' }
  ];
  const HOW_MUCH: { value: 'all' | 'part'; label: string }[] = [
    { value: 'all', label: 'all parts together' },
    { value: 'part', label: 'this part alone, the others as context' }
  ];

  let amount = $state<Amount>('usual');
  let scope = $state<'all' | 'part'>('all');
  let busy = $state(false);
  let said = $state('');
  let tempo = $state<number | null>(null);

  const score = $derived(workspace.score);
  const guess = $derived(score ? guessPeriod(score) : null);
  const asksForTempo = $derived(score !== null && !tempoMarks(score).some((m) => m.printed) && workspace.reading.requested === null);
  const parts = $derived(score?.parts.length ?? 1);

  async function make(): Promise<void> {
    if (busy) return;
    busy = true;
    said = '';
    if (tempo !== null) workspace.act({ type: 'request-tempo', range: { low: tempo, high: tempo } });
    const kept = await workspace.study.draft(amount, parts > 1 && scope === 'all');
    busy = false;
    if (kept === null) return;
    if (kept.length) {
      workspace.act({ type: 'draft', kept: kept.map(({ key, marking }) => ({ key, marking })) });
      onclose();
    } else
      said = workspace.reading.markings.length
        ? 'Nothing more is drafted: what is left would crowd the page or say again what stands there. The proposals beside each bar stay open.'
        : `Nothing is drafted: the page says what ${PROFILES[workspace.reading.period].name} asks for, or no rule of it speaks here. Another period, or “rich”, may find more.`;
  }
</script>

<Modal
  open
  size="sm"
  modalHeading="Draft a reading"
  primaryButtonText={busy ? 'Drafting …' : 'Draft'}
  primaryButtonDisabled={busy || !score}
  secondaryButtonText="Cancel"
  on:submit={make}
  on:click:button--secondary={onclose}
  on:close={onclose}
>
  <p class="quiet">
    Few marks, each at its place, with its reason in the commentary. One act: one undo takes it back. What is not printed stays open as
    proposals.
  </p>
  <div class="fields">
    <div>
      <Choice
        label="Period"
        value={workspace.reading.period}
        onchange={(value) => workspace.act({ type: 'set-period', period: value as Period })}
        data-testid="draft-period"
        >{#each PERIODS as p (p)}<SelectItem value={p} text={PROFILES[p].name} />{/each}</Choice
      >
      {#if guess}
        <p class="quiet" data-testid="period-guess">
          {#if guess.period === workspace.reading.period}So it looks: {guess.evidence.join(', ')}.
          {:else}It looks like {PROFILES[guess.period].name}: {guess.evidence.join(', ')}.
            <Act onclick={() => workspace.act({ type: 'set-period', period: guess.period })}>take {PROFILES[guess.period].name}</Act>{/if}
        </p>
      {/if}
    </div>
    {#if asksForTempo}
      <Field label="Tempo, in beats a minute (none is printed)" type="number" min="10" max="500" bind:value={tempo} />
    {/if}
    <OneOf label="Marks on the page" bind:value={amount} options={AMOUNTS} />
    {#if parts > 1}<OneOf label="For" bind:value={scope} options={HOW_MUCH} />{/if}
  </div>
  {#if said}<p role="status" data-testid="draft-said">{said}</p>{/if}
</Modal>

<style>
  .fields {
    display: grid;
    gap: 1rem;
    margin-top: 0.75rem;
  }
</style>
