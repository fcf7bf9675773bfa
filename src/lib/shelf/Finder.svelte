<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import type { ShelfPiece } from '$lib/shapes';
  import { ALL, NONE, ORDERS, periodName, STAGES, stageOf, valuesOf, type Order, type Stage, type Wanted } from './find';

  interface Props {
    pieces: readonly ShelfPiece[];
    wanted: Wanted;
  }
  let { pieces, wanted = $bindable() }: Props = $props();

  const groups = $derived(valuesOf(pieces, (p) => p.group));
  const instruments = $derived(valuesOf(pieces, (p) => p.instrument));
  const periods = $derived(valuesOf(pieces, (p) => p.period));
  const stages = $derived(valuesOf(pieces, stageOf) as Stage[]);
  const narrowed = $derived(JSON.stringify({ ...wanted, order: ALL.order }) !== JSON.stringify(ALL));
</script>

<search class="finder">
  <Field label="Find" bind:value={wanted.words} placeholder="title, composer, instrument" type="search" data-testid="find" />
  <Choice label="Order" value={wanted.order} onchange={(v) => (wanted.order = v as Order)} data-testid="order"
    >{#each Object.entries(ORDERS) as [key, name] (key)}<SelectItem value={key} text={name} />{/each}</Choice
  >
  <Choice label="Instrument" bind:value={wanted.instrument} data-testid="by-instrument"
    ><SelectItem value="" text="all" />{#each instruments as v (v)}<SelectItem
        value={v}
        text={v === NONE ? 'not given' : v}
      />{/each}</Choice
  >
  <Choice label="Period" bind:value={wanted.period} data-testid="by-period"
    ><SelectItem value="" text="all" />{#each periods as v (v)}<SelectItem
        value={v}
        text={v === NONE ? 'not chosen' : periodName(v)}
      />{/each}</Choice
  >
  <Choice label="Stage" bind:value={wanted.stage} data-testid="by-stage"
    ><SelectItem value="" text="all" />{#each stages as v (v)}<SelectItem value={v} text={STAGES[v]} />{/each}</Choice
  >
  {#if groups.some((g) => g !== NONE)}
    <Choice label="Group" bind:value={wanted.group} data-testid="by-group"
      ><SelectItem value="" text="all" />{#each groups as v (v)}<SelectItem value={v} text={v === NONE ? 'in none' : v} />{/each}</Choice
    >
  {/if}
  {#if narrowed}<Act onclick={() => (wanted = { ...ALL, order: wanted.order })}>Show all</Act>{/if}
</search>

<style>
  .finder {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
    align-items: center;
    padding-bottom: 1rem;
  }
</style>
