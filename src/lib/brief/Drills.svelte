<script lang="ts">
  import Act from '../controls/Act.svelte';
  import type { Drill } from '$core/rehearsal/context';
  import { atTempo } from '$core/rehearsal/ladder';
  import { clicks } from '$core/style/tempo-words';
  import { DRILLS } from '$core/style/drills';
  import { barLabel } from '$core/score/position';
  import { saveFile } from '../save-file';
  import TunePreview from '../writing/TunePreview.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** Practice material for the chosen bars: made from the score, each with its reason. */
  const { workspace }: { workspace: Workspace } = $props();

  const selection = $derived(workspace.selection);
  let asked = $state(false);
  /** Tempi that were chosen, by drill. */
  let tempi = $state.raw<ReadonlyMap<Drill, number>>(new Map());
  const tempoOf = (drill: Drill): number => tempi.get(drill) ?? drill.tempo.start;
  const sized = (drill: Drill): Drill => ({ ...drill, document: atTempo(drill.document, tempoOf(drill)) });
  const move = (drill: Drill, by: 1 | -1): void => void (tempi = new Map(tempi).set(drill, clicks(tempoOf(drill), by)));
  let shown = $state.raw<Drill | null>(null);
  const { drills } = $derived(workspace.study);
  const here = $derived(drills && drills.from === selection.from && drills.to === selection.to ? drills.list : null);

  // Other bars, other material.
  $effect(() => {
    void selection.from;
    void selection.to;
    asked = false;
    shown = null;
  });

  function ask(): void {
    asked = true;
    workspace.study.askDrills(selection.from, selection.to);
  }

  async function hear(drill: Drill): Promise<void> {
    if (workspace.player.playing) return workspace.player.stop();
    const performance = await workspace.study.drillPlayed(sized(drill));
    if (performance) await workspace.player.start({ performance, from: 0, to: performance.length });
  }

  const bars = ({ from, to }: Drill): string => {
    const { measures } = workspace.score!;
    return from === to ? barLabel(measures, measures[from]) : `bars ${measures[from].number}–${measures[to].number}`;
  };
  const fileName = (drill: Drill): string => `${drill.kind}-${bars(drill).replace(/[^\w]+/g, '-')}.musicxml`;
</script>

<div class="drills not-printed" data-testid="drills">
  {#if !asked}
    <Act onclick={ask}>Make practice material of {selection.from === selection.to ? 'this bar' : 'these bars'} …</Act>
  {:else if !here}
    <p class="quiet" aria-live="polite">Looking for what helps here …</p>
  {:else}
    {#each here as drill (drill.kind + drill.from)}
      <article class="item">
        <p><strong>{DRILLS[drill.kind].name}</strong> <span class="quiet">{bars(drill)}: {drill.because}</span></p>
        <p>{drill.how}</p>
        <p class="acts">
          <span class="quiet">quarter =</span>
          <Act onclick={() => move(drill, -1)} aria-label="Slower">−</Act>
          <span data-testid="tempo">{tempoOf(drill)}</span>
          <Act onclick={() => move(drill, 1)} aria-label="Faster">+</Act>
          <span class="quiet">up to {drill.tempo.goal}</span>
          <Act onclick={() => (shown = shown === drill ? null : drill)} aria-expanded={shown === drill}
            >{shown === drill ? 'Hide' : 'Show'}</Act
          >
          <Act onclick={() => void hear(drill)}>{workspace.player.playing ? 'Stop' : 'Hear'}</Act>
          <Act onclick={() => saveFile(sized(drill).document, fileName(drill), 'application/vnd.recordare.musicxml+xml')}>MusicXML</Act>
        </p>
        {#if shown === drill}<TunePreview document={sized(drill).document} />{/if}
      </article>
    {:else}
      <p class="quiet">These bars give no reason for practice material of their own.</p>
    {/each}
  {/if}
</div>

<style>
  .drills {
    padding-top: 0.3rem;
  }

  .item {
    padding: 0.35rem 0;
    border-top: 1px solid var(--line);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: baseline;
  }
</style>
