<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { entriesOf, ratiosOf } from '$core/performance/rhythm';
  import { swingRatio } from '$core/style/swing';
  import { format, toNumber } from '$core/score/fraction';
  import { beatOfMeter } from '$core/score/meter';
  import { placeName } from '$core/reading/moments';
  import { add } from '$core/score/fraction';
  import { clicks } from '$core/style/tempo-words';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  let own = $state<number | null>(null);
  const score = $derived(workspace.score!);
  const measure = $derived(score.measures[workspace.selection.from]);
  const beat = $derived(toNumber(beatOfMeter(measure).beat));
  const page = $derived(workspace.playing.performed?.page ?? null);
  const bar = $derived(page?.bars.find((b) => b.measure === measure.index) ?? null);
  /** Beats a minute of this bar as the page has it. */
  const given = $derived(bar ? Math.round((60 * toNumber(measure.length)) / (bar.planned * beat)) : 96);
  const rate = $derived(own ?? given);
  const line = $derived(
    new Set(page?.notes.flatMap((n) => (n.lead && !n.ornament && page.bars[n.bar].measure === measure.index ? [n.note] : [])) ?? [])
  );
  const entries = $derived(entriesOf(score, measure, line, rate * beat));
  const ratios = $derived(ratiosOf(entries, rate * beat));
  const swung = $derived(entries.some((e) => e.swung !== null));
</script>

<div class="head">
  <strong>{workspace.barName(measure)}</strong>
  <Field
    label="at"
    type="number"
    min="20"
    max="300"
    value={rate}
    onchange={(value) => (own = Math.max(20, Math.min(300, Number(value) || given)))}
    data-testid="rhythm-rate"
  />
  <span>beats a minute</span>
  <Act onclick={() => (own = clicks(rate, -1))}>a click slower</Act>
  <Act onclick={() => (own = clicks(rate, 1))}>a click faster</Act>
  {#if own !== null}<Act onclick={() => (own = null)}>as printed ({given})</Act>{/if}
</div>
{#if entries.length}
  <Figures heads={['Counted', 'Value', 'Enters after', ...(swung ? ['Swung'] : [])]} rows={entries} data-testid="entries">
    {#snippet cell(e, column)}{[
        e.count,
        `${format(e.length)} ♩`,
        `${e.seconds.toFixed(3)} s`,
        e.swung === null ? '' : `${e.swung.toFixed(3)} s`
      ][column]}{/snippet}
  </Figures>
  {#if swung}<p class="quiet">Swung at this tempo: {swingRatio(rate).toFixed(2)} to 1.</p>{/if}
  {#if ratios.length}
    <h3>Ratios</h3>
    {#each ratios as r (format(r.at))}
      <p>
        {placeName(score, add(measure.start, r.at))}: <strong>{r.says}</strong>{r.fromTriplet === null
          ? ''
          : `; the second note is ${Math.abs(1000 * r.fromTriplet).toFixed(0)} ms ${r.fromTriplet > 0 ? 'later' : 'earlier'} than a triplet would have it`}.
      </p>
    {/each}
  {/if}
{:else}
  <p class="quiet">No note of the line enters in this bar.</p>
{/if}

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    align-items: center;
    font-size: 0.9rem;
    padding-bottom: 0.4rem;
  }

  h3 {
    padding: 0.6rem 0 0.2rem;
  }
</style>
