<script lang="ts">
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import OneOf from '$lib/controls/OneOf.svelte';
  import { Modal } from 'carbon-components-svelte';
  import type { Command } from '$core/reading/commands/index';
  import { TEMPI, tempoRangeFault } from '$core/reading/tempo-range';
  import { tempoMarks } from '$core/score/tempo';
  import type { Amount } from '$core/style/draft-weights';
  import { PROFILES, type Period } from '$core/style/profiles';
  import { nearestOnScale } from '$core/style/tempo-words';
  import { suggestedTempo } from '$core/survey/tempo';
  import { guessPeriod } from '$core/survey/beginnings';
  import type { Workspace } from '../workspace/workspace.svelte';
  import PeriodChoice from './PeriodChoice.svelte';

  const { workspace, onclose }: { workspace: Workspace; onclose: () => void } = $props();

  const AMOUNTS: { value: Amount; label: string }[] = [
    { value: 'spare', label: 'spare: what cannot be left out' },
    { value: 'usual', label: 'usual: what an editor would print' },
    { value: 'rich', label: 'rich: as much as a page bears' }
  ];
  const HOW_MUCH: { value: 'all' | 'part'; label: string }[] = [
    { value: 'all', label: 'all parts together' },
    { value: 'part', label: 'this part alone, the others as context' }
  ];

  // svelte-ignore state_referenced_locally -- the choice starts from the reading and is the user's from then on
  let period = $state<Period>(workspace.reading.period);
  let amount = $state<Amount>('usual');
  let scope = $state<'all' | 'part'>('all');
  let tempo = $state<number | null>(null);
  // svelte-ignore state_referenced_locally -- as above
  let dates = $state(workspace.reading.composer?.dates ?? '');
  let busy = $state(false);
  let said = $state('');

  const score = $derived(workspace.score);
  const guess = $derived(score ? guessPeriod(score, dates) : null);
  const suggested = $derived(score ? suggestedTempo(score) : null);
  const asksForTempo = $derived(score !== null && !tempoMarks(score).some((m) => m.printed) && workspace.reading.requested === null);
  const parts = $derived(score?.parts.length ?? 1);

  /** Everything that was chosen is one act, made when the draft stands: who cancels has changed nothing. */
  async function make(): Promise<void> {
    if (busy) return;
    said = tempo === null ? '' : tempoRangeFault(tempo, tempo);
    if (said) return;
    busy = true;
    const kept = await workspace.study.draft(period, amount, parts > 1 && scope === 'all');
    busy = false;
    if (kept === null) return;
    if (!kept.length) {
      said = workspace.reading.markings.length
        ? 'Nothing more is drafted: what is left would crowd the page or say again what stands there. The proposals beside each bar stay open.'
        : `Nothing is drafted: the page says what ${PROFILES[period].name} asks for, or no rule of it speaks here. Another period, or “rich”, may find more.`;
      return;
    }
    const { composer } = workspace.reading;
    const commands: Command[] = [
      ...(period === workspace.reading.period ? [] : [{ type: 'set-period' as const, period }]),
      ...(tempo === null ? [] : [{ type: 'request-tempo' as const, range: { low: tempo, high: tempo } }]),
      ...(dates === (composer?.dates ?? '')
        ? []
        : [{ type: 'tell-of-composer' as const, composer: { practice: '', source: '', ...composer, dates } }]),
      { type: 'draft', kept }
    ];
    const what = `drafting ${kept.length} ${kept.length === 1 ? 'marking' : 'markings'}`;
    workspace.act(commands.length > 1 ? { type: 'together', what, commands } : commands[0]);
    onclose();
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
      <PeriodChoice value={period} onchange={(chosen) => (period = chosen)} data-testid="draft-period" />
      {#if guess}
        <p class="quiet" data-testid="period-guess">
          {#if guess.period === period}So it looks: {guess.evidence.join(', ')}.
          {:else}It looks like {PROFILES[guess.period].name}: {guess.evidence.join(', ')}.
            <Act onclick={() => (period = guess.period)}>take {PROFILES[guess.period].name}</Act>{/if}
        </p>
      {/if}
    </div>
    <Field label="Composer’s dates, where you know them" placeholder="born – died" maxlength="100" bind:value={dates} />
    {#if asksForTempo}
      <div>
        <Field label="Tempo, in beats a minute (none is printed)" type="number" min={TEMPI.least} max={TEMPI.most} bind:value={tempo} />
        {#if suggested}
          {@const middle = nearestOnScale((suggested.beats.low + suggested.beats.high) / 2)}
          <p class="quiet" data-testid="suggested-tempo">
            {suggested.name}: usually {suggested.beats.low} to {suggested.beats.high}.
            <Act onclick={() => (tempo = middle)}>take {middle}</Act>
          </p>
        {/if}
      </div>
    {/if}
    <OneOf label="Marks on the page" bind:value={amount} options={AMOUNTS} />
    {#if parts > 1}<OneOf label="For" bind:value={scope} options={HOW_MUCH} />{/if}
  </div>
  <p role="status" data-testid="draft-said">{said}</p>
</Modal>

<style>
  .fields {
    display: grid;
    gap: 1rem;
    margin-top: 0.75rem;
  }
</style>
