<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { countLine } from '$core/survey/count-line';
  import type { Score } from '$core/score/model';
  import { findBar } from '$core/score/numbering';

  const { score, part }: { score: Score; part: number } = $props();

  let wanted = $state('');
  const bar = $derived(wanted.trim() === '' ? score.measures.findIndex((m) => !m.implicit) : findBar(score, wanted));
  const syllables = $derived(bar === null || bar < 0 ? [] : countLine(score, score.measures[bar], part));

  function step(by: number): void {
    const next = score.measures[Math.max(0, Math.min(score.measures.length - 1, (bar ?? 0) + by))];
    wanted = next.number;
  }
</script>

<div class="count">
  <div class="not-printed">
    <Field label="Bar" class="chars-4" bind:value={wanted} placeholder={score.measures[bar ?? 0]?.number ?? '1'} maxlength="12" />
    <Act onclick={() => step(-1)}>before</Act>
    <Act onclick={() => step(1)}>next</Act>
  </div>
  <span class="printed">Bar {score.measures[bar ?? 0]?.number}</span>
  {#if bar === null}
    <p role="alert">There is no bar or letter “{wanted}” in this piece.</p>
  {:else}
    <p class="line" aria-label="Count line of bar {score.measures[bar]?.number}" data-testid="count-line">
      {#each syllables as s, k (k)}<span class:entry={s.entry}>{s.text}</span>{/each}
    </p>
    <p class="quiet">Strong: a note enters. Light: count it silently; ties are undone.</p>
  {/if}
</div>

<style>
  .count {
    padding-top: 0.3rem;
  }

  .printed {
    display: none;
  }

  @media print {
    .printed {
      display: inline;
    }
  }

  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.75rem;
    padding: 0.4rem 0;
    font-size: 1.15rem;
  }

  .line span {
    color: var(--muted);
  }

  .line .entry {
    color: var(--ink);
    font-weight: 700;
    border-bottom: 2px solid var(--ink);
  }
</style>
