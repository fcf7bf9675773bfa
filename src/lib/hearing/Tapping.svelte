<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { Button } from 'carbon-components-svelte';
  import { rubatoOf, tappedBeats } from '$core/performance/tap';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Seconds of each tap. */
  let taps = $state<number[]>([]);
  /** Beat of the performance at which the tapping began. */
  let first = $state(0);

  const plan = $derived(workspace.playing.performed?.plan ?? null);
  const beats = $derived(plan && taps.length > 1 ? tappedBeats(plan, first, taps) : []);
  const bars = $derived.by(() => {
    const found: { measure: number; tapped: number; planned: number; literal: number }[] = [];
    for (const b of beats) {
      const last = found.at(-1);
      if (last?.measure === b.measure) {
        last.tapped += b.seconds;
        last.planned += b.planned;
        last.literal += b.literal;
      } else found.push({ measure: b.measure, tapped: b.seconds, planned: b.planned, literal: b.literal });
    }
    return found;
  });
  const own = $derived(Object.keys(workspace.reading.rubato).length);

  function tap(event: Event): void {
    if (!plan) return;
    if (!taps.length)
      first = Math.max(
        0,
        plan.beats.findIndex((b) => b.measure === workspace.selection.from)
      );
    taps = [...taps, event.timeStamp / 1000];
  }

  function key(event: KeyboardEvent): void {
    if (event.key !== 't' || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select')) return;
    event.preventDefault();
    tap(event);
  }
  /** Enter and the space bar tap the pad as a finger does. */
  function padKey(event: KeyboardEvent): void {
    if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
    event.preventDefault();
    tap(event);
  }
</script>

<svelte:window onkeydown={key} />

<p>
  Play or imagine the passage from {workspace.score && workspace.barName(workspace.score.measures[workspace.selection.from]).toLowerCase()} on,
  and tap every beat: with the key T, or here. One more tap at the end closes the last beat.
</p>
<Button kind="tertiary" class="pad" onpointerdown={tap} onkeydown={padKey} data-testid="tap-pad"
  >{taps.length ? `${taps.length} taps` : 'Tap here'}</Button
>
<div class="acts">
  <Button size="small" kind="ghost" disabled={!taps.length} on:click={() => (taps = [])}>Begin again</Button>
  <Button
    size="small"
    kind="tertiary"
    disabled={beats.length < 3}
    on:click={() => {
      workspace.act({ type: 'take-rubato', bars: rubatoOf(beats) });
      taps = [];
    }}
    data-testid="take-rubato">Take it over as this reading’s rubato</Button
  >
  {#if own}
    <Act onclick={() => workspace.act({ type: 'take-rubato', bars: null })}>let the own rubato go ({own} bars)</Act>
  {/if}
</div>
{#if bars.length}
  <Figures heads={['Bar', 'Tapped', 'Plan', 'Page']} rows={bars} data-testid="tapped">
    {#snippet cell(b, column)}{column === 0
        ? workspace.score?.measures[b.measure].number
        : `${[b.tapped, b.planned, b.literal][column - 1].toFixed(2)} s`}{/snippet}
  </Figures>
  <p class="quiet">Each beat is smoothed with its neighbours; a beat that was left out or tapped twice is taken as even.</p>
{/if}

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    align-items: center;
  }
</style>
