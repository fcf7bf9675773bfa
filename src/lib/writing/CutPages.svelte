<script lang="ts">
  import type { CutSystem } from '$core/writing/facsimile';
  import { api } from '../api';
  import Act from '../controls/Act.svelte';
  import type { Paper } from './paper.svelte';

  const { paper }: { paper: Paper } = $props();

  /** Shares of the page within which a click means a line that stands there. */
  const NEAR = 0.008;
  /** Height of a system that is put by hand, and by how much its edges move. */
  const HEIGHT = 0.08;
  const STEP = 0.006;

  const count = (page: number): number => paper.pages.slice(0, page).reduce((n, p) => n + bars(p.cuts), 0);
  const bars = (cuts: readonly CutSystem[]): number => cuts.reduce((n, s) => n + s.lines.length - 1, 0);
  const many = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;
  const sorted = (cuts: readonly CutSystem[]): CutSystem[] => [...cuts].sort((a, b) => a.top - b.top);
  const within = (x: number): number => Math.max(0, Math.min(1, x));

  const putSystem = (page: number, y: number): void =>
    paper.cut(
      page,
      sorted([...paper.pages[page].cuts, { top: within(y - HEIGHT / 2), bottom: within(y + HEIGHT / 2), lines: [0.06, 0.94] }])
    );
  /** Below the last one, where there is room. */
  const addSystem = (page: number): void =>
    putSystem(page, Math.min(1 - HEIGHT / 2, Math.max(0, ...paper.pages[page].cuts.map((s) => s.bottom)) + HEIGHT));

  /** In a system a click puts a bar line or takes one away; elsewhere it puts a system. */
  function click(event: MouseEvent, page: number): void {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    const { cuts } = paper.pages[page];
    const k = cuts.findIndex((s) => y >= s.top && y <= s.bottom);
    if (k < 0) return putSystem(page, y);
    const near = cuts[k].lines.findIndex((l) => Math.abs(l - x) < NEAR);
    const lines = near < 0 ? [...cuts[k].lines, x].sort((a, b) => a - b) : cuts[k].lines.filter((_, n) => n !== near);
    if (lines.length >= 2) change(page, k, { lines });
  }

  const change = (page: number, system: number, part: Partial<CutSystem>): void =>
    paper.cut(
      page,
      paper.pages[page].cuts.map((s, k) => (k === system ? { ...s, ...part } : s))
    );
</script>

<p class="row">
  <Act disabled={!paper.canUndo} onclick={() => paper.undo()}>Undo the last cut</Act>
  <span class="quiet">A click in a system puts a bar line, or takes away the one that is there; a click beside them puts a system.</span>
</p>
{#each paper.pages as page, p (page.id)}
  <section aria-label="Page {p + 1}">
    <header class="row">
      <h2>Page {p + 1}</h2>
      <span class="quiet" data-testid="cut-count">{many(page.cuts.length, 'system')}, {many(bars(page.cuts), 'bar')}</span>
      <Act onclick={() => addSystem(p)}>a system here</Act>
      <Act onclick={() => void paper.remove(p)}>take this page away</Act>
    </header>
    <div class="both">
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the same by keys stands beside it) -->
      <div class="paper" onclick={(e) => click(e, p)} data-testid="paper">
        <img src={api.facsimileAddress(paper.writing, page.id)} alt="Page {p + 1} of the paper" draggable="false" />
        <svg viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden="true">
          {#each page.cuts as { top, bottom, lines }, k (k)}
            <rect x={Math.min(...lines)} y={top} width={Math.max(...lines) - Math.min(...lines)} height={bottom - top} />
            {#each lines as x (x)}<line x1={x} x2={x} y1={top} y2={bottom} />{/each}
          {/each}
        </svg>
      </div>
      <ol>
        {#each page.cuts as { top, bottom, lines }, k (k)}
          {@const first = count(p) + bars(page.cuts.slice(0, k)) + 1}
          <li>
            System {k + 1}, {lines.length === 2 ? `bar ${first}` : `bars ${first} to ${first + lines.length - 2}`} of the paper
            <span class="row">
              <Act onclick={() => change(p, k, { top: within(top - STEP) })}>more above</Act>
              <Act onclick={() => change(p, k, { top: Math.min(bottom - STEP, top + STEP) })}>less above</Act>
              <Act onclick={() => change(p, k, { bottom: within(bottom + STEP) })}>more below</Act>
              <Act onclick={() => change(p, k, { bottom: Math.max(top + STEP, bottom - STEP) })}>less below</Act>
              <Act
                onclick={() => {
                  const widest = lines.slice(1).reduce((w, x, n) => (x - lines[n] > lines[w + 1] - lines[w] ? n : w), 0);
                  change(p, k, { lines: [...lines, (lines[widest] + lines[widest + 1]) / 2].sort((a, b) => a - b) });
                }}>a line in its widest bar</Act
              >
              <Act disabled={lines.length < 3} onclick={() => change(p, k, { lines: lines.slice(0, -1) })}>without its last line</Act>
              <Act
                onclick={() =>
                  paper.cut(
                    p,
                    page.cuts.filter((_, n) => n !== k)
                  )}>take it out</Act
              >
            </span>
          </li>
        {/each}
      </ol>
    </div>
  </section>
{/each}

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: baseline;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 3fr) minmax(14rem, 1fr);
    gap: 1rem;
    padding: 0.5rem 0 1.5rem;
  }

  .paper {
    position: relative;
    align-self: start;
    cursor: crosshair;
    border: 1px solid var(--line);
  }

  img {
    display: block;
    width: 100%;
  }

  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }

  rect {
    fill: var(--selected);
    fill-opacity: 0.35;
  }

  line {
    stroke: var(--edition);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }

  ol {
    margin: 0;
    padding-left: 1.2rem;
    font-size: 0.9rem;
  }
</style>
