<script lang="ts">
  import { onMount } from 'svelte';
  import { can } from '$core/style/instruments/instrument';
  import Act from '../controls/Act.svelte';
  import Fold from '../controls/Fold.svelte';
  import type { OtherWay } from '$core/technique/told/lying';
  import { LYING_NAMES, unwritten, writing, type LyingKind } from './lying';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Bars that are told one by one, at most. */
  const MOST_BARS = 4;

  const selection = $derived(workspace.selection);
  onMount(() => workspace.study.needLies());
  const lies = $derived(workspace.study.lies);
  const within = (measure: number): boolean => measure >= selection.from && measure <= selection.to;
  const bars = $derived([...new Set(lies?.lines.filter((l) => within(l.measure)).map((l) => l.measure))].slice(0, MOST_BARS));
  const one = $derived(selection.from === selection.to);
  const ways = $derived(lies?.ways.filter((w) => w.from <= selection.to && w.to >= selection.from).slice(0, 3) ?? []);
  const findings = $derived(lies?.findings.filter((f) => within(f.measure)) ?? []);
  /** What could be written here and does not stand yet. */
  const marks = $derived(unwritten(lies, workspace.reading).filter((m) => within(m.measure)));
  const kinds = $derived((Object.keys(LYING_NAMES) as LyingKind[]).filter((kind) => marks.some((m) => m.kind === kind)));
  const many = (kind: LyingKind, n: number): string => `${n} ${LYING_NAMES[kind]}${n === 1 ? '' : 's'}`;

  function write(kind: LyingKind): void {
    const chosen = marks.filter((m) => m.kind === kind);
    workspace.act({ type: 'together', what: `writing ${many(kind, chosen.length)}`, commands: writing(chosen, workspace.reading) });
  }

  function take(way: OtherWay): void {
    workspace.act({ type: 'together', what: 'taking another way', commands: writing(way.marks, workspace.reading) });
  }
</script>

{#if lies && (bars.length || findings.length)}
  <section data-testid="how-it-lies">
    <h3>How it lies</h3>
    {#each bars as bar (bar)}
      {#if !one}<p class="quiet">{workspace.barName(workspace.score!.measures[bar])}</p>{/if}
      <dl>
        {#each lies.lines.filter((l) => l.measure === bar) as { of, text } (of)}
          <dt>{of}</dt>
          <dd>{text}</dd>
        {/each}
      </dl>
    {/each}
    {#each findings as f, k (k)}<p class="wrong">{f.what}</p>{/each}
    {#if ways.length}
      <Fold label={ways.length === 1 ? 'Another way is close' : `${ways.length} other ways are close`}>
        {#each ways as w, k (k)}<p>
            {w.text} <span class="quiet">({w.price})</span>
            <Act onclick={() => take(w)} aria-label="Take this way: {w.text}">Take it</Act>
          </p>{/each}
      </Fold>
    {/if}
    {#if kinds.length}
      <p class="acts not-printed">
        {#each kinds as kind (kind)}
          <Act onclick={() => write(kind)}>Write {many(kind, marks.filter((m) => m.kind === kind).length)} in</Act>
        {/each}
      </p>
    {/if}
    {#if can(workspace.instrument, 'breathes') && !workspace.playedBy}<p class="quiet">
        Seconds are those of a usual player; yours may have more or less: <a href="/players">say so</a>.
      </p>{/if}
  </section>
{/if}

<style>
  section {
    padding-top: 0.7rem;
  }

  h3 {
    color: var(--muted);
    padding-bottom: 0.15rem;
  }

  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 0.1rem 0.8rem;
    margin: 0;
  }

  dt {
    color: var(--muted);
  }

  dd {
    margin: 0;
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    padding-top: 0.3rem;
  }
</style>
