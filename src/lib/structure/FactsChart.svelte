<script lang="ts">
  import { onMount } from 'svelte';
  import {
    BarController,
    BarElement,
    CategoryScale,
    Chart,
    LinearScale,
    LineController,
    LineElement,
    PointElement,
    Tooltip
  } from 'chart.js';
  import { barTable } from '$core/analysis/bar-table';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  Chart.register(BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

  let canvas: HTMLCanvasElement;
  let chart: Chart | null = null;
  const rows = $derived(workspace.score ? barTable(workspace.score, workspace.facts) : []);

  const token = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

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
          x: {
            title: { display: true, text: 'bar', color: token('--muted') },
            ticks: { color: token('--muted') },
            grid: { display: false }
          },
          y: {
            beginAtZero: true,
            title: { display: true, text: 'chord changes (bars)', color: token('--muted') },
            ticks: { precision: 0, color: token('--muted') },
            grid: { color: token('--line') }
          },
          density: {
            position: 'right',
            beginAtZero: true,
            title: { display: true, text: 'notes a quarter (line)', color: token('--muted') },
            ticks: { color: token('--muted') },
            grid: { display: false }
          }
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
    <table data-testid="bar-table">
      <thead><tr><th>Bar</th><th>Section</th><th>Key</th><th>Chords</th><th>Changes</th><th>Notes a quarter</th></tr></thead>
      <tbody>
        {#each rows as row (row.measure)}
          <tr class:now={row.measure >= workspace.selection.from && row.measure <= workspace.selection.to}>
            <td><button class="bar-link" onclick={() => workspace.selection.bar(row.measure)}>{row.number}</button></td>
            <td>{row.section}</td><td>{row.key}</td><td>{row.chords.join(' ')}</td><td>{row.changes}</td><td>{row.density}</td>
          </tr>
        {/each}
      </tbody>
    </table>
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

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 0.85rem;
  }

  th {
    text-align: left;
    font-weight: 500;
    color: var(--muted);
    position: sticky;
    top: 0;
    background: var(--paper);
  }

  td,
  th {
    padding: 0.05rem 0.5rem 0.05rem 0;
  }

  .now {
    background: var(--selected);
  }
</style>
