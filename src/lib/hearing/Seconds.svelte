<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { explainLoudness, explainTime, isNoticed, wholeOf } from '$core/performance/explain';
  import { measureAt } from '$core/score/position';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const performance = $derived(workspace.playing.performed?.plan ?? null);
  const bars = $derived(
    performance && workspace.score
      ? performance.bars.flatMap((b, k) =>
          b.measure >= workspace.selection.from && b.measure <= workspace.selection.to
            ? [
                {
                  bar: b,
                  loud: performance.loudness[k],
                  beats: performance.beats.filter((x) => x.measure === b.measure && x.pass === b.pass)
                }
              ]
            : []
        )
      : []
  );
  const whole = $derived(
    performance && workspace.score
      ? wholeOf(
          performance,
          workspace.facts.sections.map((s, k) => ({
            measure: k === 0 ? 0 : measureAt(workspace.score!, s.start).index,
            name: s.label.replace(/'/g, '′')
          }))
        )
      : null
  );
  const name = (measure: number): string => workspace.barName(workspace.score!.measures[measure]);
</script>

<h3>The selected bars</h3>
{#each bars as { bar, loud, beats } (`${bar.measure}|${bar.pass}`)}
  <article data-testid="explained">
    <p>
      <strong>{name(bar.measure)}{bar.pass ? `, time ${bar.pass + 1}` : ''}</strong>: {explainTime(
        bar,
        bar.literal / Math.max(1, beats.length)
      )}
    </p>
    <p class="quiet">{explainLoudness(loud)}</p>
    <Fold label="beat by beat">
      {#each beats as beat (beat.beat)}
        <p class="beat" class:quiet={!isNoticed(beat.planned - beat.literal, beat.literal)}>
          {beat.beat + 1}: {explainTime(beat, beat.literal)}
        </p>
      {/each}
    </Fold>
  </article>
{/each}
{#if whole}
  <h3>The whole</h3>
  <p>{whole.says}. Given {whole.whole.given.toFixed(1)} s, taken {Math.abs(whole.whole.taken).toFixed(1)} s.</p>
  {#if whole.quickest && whole.broadest}
    <p class="quiet">
      Broadest against the page: <Act onclick={() => workspace.selection.bar(whole.broadest!.measure)}>{name(whole.broadest.measure)}</Act>,
      {Math.round(100 * (whole.broadest.planned / whole.broadest.literal - 1))} %; quickest:
      <Act onclick={() => workspace.selection.bar(whole.quickest!.measure)}>{name(whole.quickest.measure)}</Act>,
      {Math.round(100 * (whole.quickest.planned / whole.quickest.literal - 1))} %.
    </p>
  {/if}
  <Figures heads={['Section', 'Page', 'Reading', 'Given', 'Taken']} rows={whole.sections}>
    {#snippet cell(s, column)}{[
        s.name,
        s.literal.toFixed(1),
        s.planned.toFixed(1),
        `+${s.given.toFixed(1)}`,
        `−${Math.abs(s.taken).toFixed(1)}`
      ][column]}{/snippet}
  </Figures>
{/if}

<style>
  article {
    padding: 0.3rem 0;
    border-bottom: 1px solid var(--line);
  }

  h3 {
    padding: 0.6rem 0 0.2rem;
  }

  .beat {
    font-size: 0.85rem;
    padding-left: 1rem;
  }
</style>
