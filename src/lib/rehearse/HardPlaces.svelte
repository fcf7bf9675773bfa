<script lang="ts">
  import { barList } from '$core/score/position';
  import { capital, listed } from '$core/sentences';
  import { JUDGEMENTS, type Judgement } from '$core/reading/commands/judge-bars';
  import { DIFFICULTY_PARTS, PART_WORDS, type BarDifficulty, type HotSpot } from '$core/rehearsal/difficulty';
  import Act from '../controls/Act.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    difficulty: readonly BarDifficulty[];
    spots: readonly HotSpot[];
  }
  const { workspace, difficulty, spots }: Props = $props();

  const { selection } = $derived(workspace);
  const SAID: Record<Judgement, string> = { harder: 'Call it harder', easier: 'Call it easier', 'no matter': 'Leave it out' };
  const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, k) => from + k);
  const bars = (from: number, to: number): string => capital(barList(workspace.score!.measures, range(from, to)));
  const chosen = $derived(difficulty.slice(selection.from, selection.to + 1));
  const parts = $derived(
    DIFFICULTY_PARTS.map((part) => ({ part, value: Math.max(0, ...chosen.map((b) => b.parts[part])) }))
      .filter((p) => p.value >= 0.05)
      .sort((a, b) => b.value - a.value)
  );
  const value = $derived(Math.max(0, ...chosen.map((b) => b.value)));
  /** What was said of bars, in runs of the same. */
  const judged = $derived.by(() => {
    const runs: { from: number; to: number; as: Judgement }[] = [];
    for (const [k, as] of Object.entries(workspace.reading.judged).sort(([a], [b]) => Number(a) - Number(b))) {
      const last = runs.at(-1);
      if (last && last.as === as && last.to === Number(k) - 1) last.to = Number(k);
      else runs.push({ from: Number(k), to: Number(k), as });
    }
    return runs;
  });

  function choose(from: number, to: number): void {
    selection.bar(from);
    if (to > from) selection.bar(to, true);
  }
  const judge = (from: number, to: number, as: Judgement | null): void => workspace.act({ type: 'judge-bars', from, to, as });
  const keep = (from: number, to: number): void => void workspace.practice.toTask({ from, to, own: null });
</script>

<section aria-label="The chosen bars">
  <h3>{bars(selection.from, selection.to)} <span class="quiet">{value.toFixed(2)}</span></h3>
  {#each parts as p (p.part)}
    <p class="part">
      <span>{PART_WORDS[p.part]}</span><i class="much"><b style:width="{100 * p.value}%"></b></i><span class="number"
        >{p.value.toFixed(2)}</span
      >
    </p>
  {:else}
    <p class="quiet">Nothing here stands out as hard.</p>
  {/each}
  <p class="acts">
    {#each JUDGEMENTS as as (as)}<Act onclick={() => judge(selection.from, selection.to, as)}>{SAID[as]}</Act>{/each}
    <Act onclick={() => keep(selection.from, selection.to)}>Into the plan</Act>
  </p>
</section>

<h3>Hard places</h3>
{#each spots as spot (spot.from)}
  {@const now = spot.from === selection.from && spot.to === selection.to}
  <article class:now data-testid="hot-spot">
    <p>
      <Act class="bars" onclick={() => choose(spot.from, spot.to)}>{bars(spot.from, spot.to)}</Act>
      <span class="quiet">{listed(spot.why.map((w) => PART_WORDS[w]))}; {spot.value.toFixed(2)}</span>
    </p>
    <p class="acts">
      <Act onclick={() => workspace.hearReading(workspace.reading, spot.from, spot.to)}>Hear</Act>
      <Act onclick={() => judge(spot.from, spot.to, 'no matter')}>Leave it out</Act>
      <Act onclick={() => keep(spot.from, spot.to)}>Into the plan</Act>
    </p>
  </article>
{:else}
  <p class="quiet">No place is much harder than the others.</p>
{/each}
{#if judged.length}
  <h3>Said by you</h3>
  {#each judged as run (run.from)}
    <p class="acts">
      <span>{bars(run.from, run.to)}: {run.as === 'no matter' ? 'left out' : run.as}</span>
      <Act onclick={() => judge(run.from, run.to, null)}>Take back</Act>
    </p>
  {/each}
{/if}

<style>
  h3 {
    padding: 0.6rem 0 0.2rem;
  }

  .part {
    display: grid;
    grid-template-columns: 1fr 7rem 2.5rem;
    gap: 0.6rem;
    align-items: center;
    font-size: 0.9rem;
  }

  .much {
    height: 0.4rem;
    background: var(--line);
  }

  .much b {
    display: block;
    height: 100%;
    background: var(--tone-1);
  }

  .number {
    text-align: right;
    color: var(--muted);
  }

  article {
    padding: 0.35rem 0;
    border-top: 1px solid var(--line);
  }

  .now {
    background: var(--selected);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: baseline;
  }
</style>
