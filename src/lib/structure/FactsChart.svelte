<script lang="ts">
  import Figures from '$lib/controls/Figures.svelte';
  import Act from '$lib/controls/Act.svelte';
  import { onMount } from 'svelte';
  import { axis, Chart, token } from '../charts';
  import { barTable } from '$core/analysis/bar-table';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  let canvas: HTMLCanvasElement;
  let chart: Chart | null = null;
  const rows = $derived(workspace.score ? barTable(workspace.score, workspace.facts) : []);

  function draw(): void {
    chart?.destroy();
    const keys = [...new Set(rows.map((r) => r.key))];
    chart = new Chart(canvas, {
      data: {
        labels: rows.map((r) => r.number),
        datasets: [
          {
            type: 'bar',
            label: 'chord changes',
            data: rows.map((r) => r.changes),
            backgroundColor: rows.map((r) => (keys.indexOf(r.key) % 2 ? token('--tone-2') : token('--tone-1')))
          },
          {
            type: 'line',
            label: 'notes a quarter',
            data: rows.map((r) => r.density),
            borderColor: token('--ink'),
            borderDash: [5, 3],
            borderWidth: 1.5,
            pointRadius: 2,
            yAxisID: 'density'
          }
        ]
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        onClick: (_event, found) => found[0] && workspace.selection.bar(found[0].index),
        plugins: {
          tooltip: { callbacks: { afterTitle: (items) => `${rows[items[0].dataIndex].key}, section ${rows[items[0].dataIndex].section}` } }
        },
        scales: {
          x: axis('bar', false),
          y: { ...axis('chord changes (bars)', true), beginAtZero: true, ticks: { color: token('--muted'), precision: 0 } },
          density: { ...axis('notes a quarter (line)', false), position: 'right', beginAtZero: true }
        }
      }
    });
  }

  onMount(() => () => chart?.destroy());
  $effect(() => {
    if (rows.length) draw();
  });
</script>

<section class="chart" aria-label="Harmonic rhythm, note density and keys over the bars">
  <div class="canvas">
    <canvas bind:this={canvas} aria-label="Chord changes and notes a quarter for every bar; the same stands in the table"></canvas>
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
  <div class="table" tabindex="0" role="region" aria-label="Table of the bars">
    <Figures heads={['Bar', 'Section', 'Key', 'Chords', 'Changes', 'Notes a quarter']} {rows} data-testid="bar-table">
      {#snippet cell(row, column)}
        {#if column === 0}<Act
            class={row.measure >= workspace.selection.from && row.measure <= workspace.selection.to ? 'now' : ''}
            onclick={() => workspace.selection.bar(row.measure)}>{row.number}</Act
          >{:else}{[row.section, row.key, row.chords.join(' '), row.changes, row.density][column - 1]}{/if}
      {/snippet}
    </Figures>
  </div>
</section>

<style>
  .chart {
    height: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 27rem;
    gap: 1rem;
    padding: 0.5rem 1.25rem;
    box-sizing: border-box;
  }

  .canvas {
    position: relative;
    min-height: 0;
  }

  .table {
    overflow-y: auto;
  }
</style>
