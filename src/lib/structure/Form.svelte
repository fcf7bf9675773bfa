<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import Sure from '$lib/controls/Sure.svelte';
  import { Button } from 'carbon-components-svelte';
  import type { ParallelFact } from '$core/analysis/facts';
  import { intervalWords, parallelWords } from '$core/analysis/words';
  import { add, cmp, sub, type Fraction } from '$core/score/fraction';
  import { findBar } from '$core/score/numbering';
  import { placeName } from '$core/reading/moments';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, onparallel }: { workspace: Workspace; onparallel: (id: string) => void } = $props();

  const score = $derived(workspace.score!);
  const facts = $derived(workspace.facts);
  const details = $derived(workspace.study.details);
  const first = $derived(score.measures[workspace.selection.from]);
  const last = $derived(score.measures[workspace.selection.to]);
  const start = $derived<Fraction>(first.start);
  const end = $derived<Fraction>(add(last.start, last.length));
  const over = (f: { start: Fraction; end: Fraction }): boolean => cmp(f.start, end) < 0 && cmp(f.end, start) > 0;
  /** So many of the largest places are shown; the others wait behind a line. */
  const FIRST = 5;
  const parallels = $derived(facts.parallels.filter((p) => over(p.a) || over(p.b)).sort((a, b) => b.weight - a.weight));
  const shown = $derived(parallels.slice(0, FIRST));
  const folded = $derived(parallels.slice(FIRST));
  const sequences = $derived(facts.sequences.filter(over));
  const groups = $derived((details?.groups ?? []).filter(over));
  const irregular = $derived((details?.lengths ?? []).filter((l) => l.irregular));

  let label = $state('');
  let other = $state('');
  let wrong = $state('');

  const label1 = (name: string): string => name.replace(/'/g, '′');
  const id = (kind: string, at: Fraction): string => `pin-${kind}-${at.n}_${at.d}`;

  function section(name: string): void {
    workspace.pin({ id: id('section', start), kind: 'section', start, label: name });
    label = '';
  }

  function same(): void {
    const bar = findBar(score, other);
    if (bar === null || bar === workspace.selection.from) {
      wrong = other.trim() ? `“${other}” is no other bar of this piece.` : 'Please name the bar in which the other place begins.';
      return;
    }
    wrong = '';
    workspace.pin({
      id: `pin-same-${start.n}_${start.d}-${bar}`,
      kind: 'same-music',
      start,
      other: score.measures[bar].start,
      length: sub(end, start)
    });
    other = '';
  }

  const dismiss = (fact: { id: string }, at: Fraction, what: string) =>
    workspace.pin({ id: `pin-dismiss-${fact.id}`, kind: 'dismiss', start: at, fact: fact.id, what });
</script>

{#snippet parallel(p: ParallelFact)}
  <p data-testid="parallel-fact">
    <Act onclick={() => onparallel(p.id)}>{placeName(score, p.a.start)} and {placeName(score, p.b.start)}</Act>
    {parallelWords(p)}; {p.differences.length}
    {p.differences.length === 1 ? 'difference' : 'differences'}
    <Sure of={p.confidence} pinned={p.pinned} /> <span class="quiet">{p.evidence}</span>
    <Act onclick={() => dismiss(p, p.a.start, 'parallel place')}>dismiss</Act>
  </p>
{/snippet}

<section>
  <h3>Form</h3>
  <p><strong>{facts.form ?? 'No common form is recognised'}</strong>: {facts.sections.map((s) => label1(s.label)).join(' ')}</p>
  {#each facts.sections.filter(over) as s (s.id)}
    <p data-testid="section-fact">
      <strong>{label1(s.label)}</strong> from {placeName(score, s.start)}, in {s.opens}{s.closes !== s.opens
        ? `, closing in ${s.closes}`
        : ''}; set up by {s.setUp}
      <Sure of={s.confidence} pinned={s.pinned} /> <span class="quiet">{s.pinned ? '' : s.evidence}</span>
    </p>
  {/each}
  <form onsubmit={(e) => (e.preventDefault(), label.trim() && section(label.trim()))}>
    <Field label="At bar {first.number} begins section" bind:value={label} class="chars-4" maxlength="24" data-testid="section-label" />
    <Button size="small" kind="ghost" type="submit">Set</Button>
    <Button size="small" kind="ghost" on:click={() => section('')}>none begins here</Button>
  </form>
</section>

<section>
  <h3>Phrases together</h3>
  {#each groups as g, k (k)}<p>{placeName(score, g.start)}: <strong>{g.kind}</strong> <span class="quiet">{g.evidence}</span></p>{:else}<p
      class="quiet"
    >
      No period or sentence in these bars.
    </p>{/each}
  {#if irregular.length}<p>
      Irregular lengths: {irregular
        .map((l) => `${l.bars} bars from ${placeName(score, facts.phrases.find((p) => p.id === l.phrase)?.start ?? start)}`)
        .join('; ')}
    </p>{/if}
  {#if details?.hypermeter}<p>Two bars as one: {details.hypermeter.evidence}.</p>{/if}
</section>

<section>
  <h3>Parallel places</h3>
  {#each shown as p (p.id)}{@render parallel(p)}{:else}<p class="quiet">These bars come only once.</p>{/each}
  {#if folded.length}<Fold label="{folded.length} smaller {folded.length === 1 ? 'place' : 'places'}"
      >{#each folded as p (p.id)}{@render parallel(p)}{/each}</Fold
    >{/if}
  <form onsubmit={(e) => (e.preventDefault(), same())}>
    <Field
      label="The selected bars are the same music as from bar"
      bind:value={other}
      class="chars-5"
      maxlength="20"
      data-testid="same-as"
    />
    <Button size="small" kind="ghost" type="submit">Say so</Button>
  </form>
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
</section>

<section>
  <h3>Sequences</h3>
  {#each sequences as s (s.id)}
    <p>
      {placeName(score, s.start)}: <strong>{s.units} units, each {intervalWords(s.step)}</strong>{s.kind ? `, ${s.kind}` : ''}
      <span class="quiet">{s.evidence}</span>
      <Act onclick={() => dismiss(s, s.start, 'sequence')}>dismiss</Act>
    </p>
  {:else}<p class="quiet">None in these bars.</p>{/each}
</section>

<style>
  section {
    padding-top: 0.8rem;
  }

  h3 {
    color: var(--muted);
  }

  p {
    padding: 0.1rem 0;
  }

  form {
    display: flex;
    align-items: center;
    gap: 0.4rem;
    flex-wrap: wrap;
  }

  .wrong {
    color: var(--cds-danger-01);
  }
</style>
