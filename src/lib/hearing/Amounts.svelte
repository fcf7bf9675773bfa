<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { cmp } from '$core/score/fraction';
  import { EFFECTS, MOST_AMOUNT, type EffectKey } from '$core/style/effects';
  import { CAUTIONS } from '$core/style/cautions';
  import { sourceNames } from '../brief/names';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  let where = $state<'whole' | 'section' | 'here'>('whole');
  const AREAS = { time: 'Time', rhythm: 'Rhythm', loudness: 'Loudness', length: 'Length', notes: 'Notes' } as const;

  const range = $derived.by(() => {
    if (where === 'whole' || !workspace.score) return null;
    const here = workspace.selection.stretch();
    const section = workspace.facts.sections.findLast((s) => cmp(s.start, here.from) <= 0);
    return where === 'section' && section ? { from: section.start, to: section.end } : here;
  });
  const amountOf = (effect: EffectKey): number =>
    (range &&
      workspace.reading.localAmounts.findLast((a) => a.effect === effect && cmp(a.from, range.from) === 0 && cmp(a.to, range.to) === 0)
        ?.amount) ??
    workspace.reading.amounts[effect] ??
    1;

  const set = (effect: EffectKey, amount: number | null) => workspace.act({ type: 'set-amount', effect, amount, range });
  const locals = $derived(workspace.reading.localAmounts);
  const all = (amount: number | null) =>
    workspace.act({
      type: 'together',
      what: amount === null ? 'all effects as usual' : 'all effects off',
      commands: EFFECTS.map((e) => ({ type: 'set-amount' as const, effect: e.key, amount, range }))
    });
</script>

<div class="head">
  <Choice label="For" bind:value={where} data-testid="amount-range"
    ><SelectItem value="whole" text="the whole piece" /><SelectItem value="section" text="this section" /><SelectItem
      value="here"
      text="the selected bars"
    /></Choice
  >
  <Act onclick={() => all(null)}>all as usual</Act>
  <Act onclick={() => all(0)}>all off</Act>
</div>
{#each Object.entries(AREAS) as [on, title] (on)}
  <h3>{title}</h3>
  {#each EFFECTS.filter((e) => e.on === on) as effect (effect.key)}
    {@const amount = amountOf(effect.key)}
    <label class="effect" title="{effect.says} ({sourceNames([...effect.sources])})">
      <span>{effect.name}</span>
      <input
        type="range"
        min="0"
        max={100 * MOST_AMOUNT}
        step="10"
        value={Math.round(100 * amount)}
        onchange={(e) => {
          const value = Number(e.currentTarget.value) / 100;
          set(effect.key, value === 1 ? null : value);
        }}
        data-testid="amount-{effect.key}"
      />
      <span class="number">{Math.round(100 * amount)} %</span>
    </label>
  {/each}
{/each}
<p class="quiet care">{CAUTIONS.hearing}</p>
{#if locals.length}
  <h3>For some bars only</h3>
  {#each locals as local, k (k)}
    <p>
      {EFFECTS.find((e) => e.key === local.effect)?.name}
      {Math.round(100 * local.amount)} % from {workspace.score && workspace.barName(workspace.measureOf(local.from)!)}
      <Act
        onclick={() => workspace.act({ type: 'set-amount', effect: local.effect, amount: null, range: { from: local.from, to: local.to } })}
        >let it go</Act
      >
    </p>
  {/each}
{/if}

<style>
  .head {
    display: flex;
    gap: 0.8rem;
    align-items: center;
    font-size: 0.9rem;
  }

  h3 {
    padding: 0.6rem 0 0.1rem;
  }

  .effect {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 8rem 3.2rem;
    gap: 0.6rem;
    align-items: center;
    font-size: 0.9rem;
  }

  input[type='range'] {
    accent-color: var(--edition);
  }

  .number {
    text-align: right;
    color: var(--muted);
  }
</style>
