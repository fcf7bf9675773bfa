<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { onMount } from 'svelte';
  import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, Tooltip, type ActiveElement } from 'chart.js';
  import type { Performance } from '$core/performance/perform';
  import { levelDb } from '$core/reading/dynamic-plan';
  import { DYNAMIC_STEPS } from '$core/style/dynamics';
  import { STEP_DB } from '$core/style/dynamics';
  import { toNumber } from '$core/score/fraction';
  import { beatOfMeter } from '$core/score/meter';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

  let unit = $state<'rate' | 'seconds'>('rate');
  let tempoCanvas: HTMLCanvasElement;
  let loudCanvas: HTMLCanvasElement;
  let tempoChart: Chart<'line'> | null = null;
  let loudChart: Chart<'line'> | null = null;
  /** A bar's tempo while it is pulled. */
  let pulling = $state<{ measure: number; y: number } | null>(null);

  /** Bars of the first time through. */
  function rowsOf(performance: Performance) {
    const { score } = workspace;
    if (!score) return [];
    return performance.bars.flatMap((b, k) => {
      const loud = performance.loudness[k];
      const measure = score.measures[b.measure];
      const beats = toNumber(measure.length) / toNumber(beatOfMeter(measure).beat);
      return b.pass === 0
        ? [
            {
              measure: b.measure,
              number: measure.number,
              seconds: b.planned,
              rate: (60 * beats) / b.planned,
              loud,
              planned: b.planned,
              literal: b.literal
            }
          ]
        : [];
    });
  }
  const plan = $derived(workspace.playing.performed ? rowsOf(workspace.playing.performed.plan) : []);
  const page = $derived(workspace.playing.performed ? rowsOf(workspace.playing.performed.page) : []);

  const token = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

  function shared(title: string) {
    return {
      animation: false as const,
      maintainAspectRatio: false,
      interaction: { mode: 'index' as const, intersect: false },
      onClick: (_e: unknown, found: ActiveElement[]) => found[0] && !pulling && workspace.selection.bar(plan[found[0].index].measure),
      plugins: { tooltip: { enabled: true } },
      scales: {
        x: { ticks: { color: token('--muted'), maxRotation: 0 }, grid: { display: false } },
        y: {
          title: { display: true, text: title, color: token('--muted') },
          ticks: { color: token('--muted') },
          grid: { color: token('--line') }
        }
      }
    };
  }

  const line = (label: string, data: (number | null)[], color: string, dash: number[] = [], rest: object = {}) => ({
    label,
    data,
    borderColor: token(color),
    backgroundColor: token(color),
    borderDash: dash,
    borderWidth: dash.length ? 1.2 : 2,
    pointRadius: dash.length ? 0 : 2,
    ...rest
  });

  function draw(): void {
    tempoChart?.destroy();
    loudChart?.destroy();
    const labels = plan.map((r) => r.number);
    const value = (r: { rate: number; seconds: number }) => (unit === 'rate' ? r.rate : r.seconds);
    tempoChart = new Chart(tempoCanvas, {
      type: 'line',
      data: { labels, datasets: [line('reading', plan.map(value), '--edition'), line('page', page.map(value), '--ink', [5, 3])] },
      // Room on the right as the other chart has it, so that bars stand under each other.
      options: { ...shared(unit === 'rate' ? 'beats a minute' : 'seconds of the bar'), layout: { padding: { right: 52 } } }
    });
    const steps = shared('loudness');
    loudChart = new Chart(loudCanvas, {
      type: 'line',
      data: {
        labels,
        datasets: [
          line(
            'reading (dB)',
            plan.map((r) => r.loud.planned),
            '--edition'
          ),
          line(
            'marks alone (dB)',
            page.map((r) => r.loud.literal),
            '--ink',
            [5, 3]
          ),
          line(
            'sounding share (%)',
            plan.map((r) => (r.loud.sounding === null ? null : Math.round(100 * r.loud.sounding))),
            '--tone-1',
            [2, 3],
            { yAxisID: 'share' }
          )
        ]
      },
      options: {
        ...steps,
        scales: {
          ...steps.scales,
          y: {
            ...steps.scales.y,
            ticks: {
              color: token('--muted'),
              stepSize: STEP_DB,
              callback: (db) => DYNAMIC_STEPS[DYNAMIC_STEPS.findIndex((_, k) => Math.abs(levelDb(k) - Number(db)) < 0.1)] ?? ''
            }
          },
          share: {
            position: 'right',
            min: 0,
            max: 100,
            title: { display: true, text: 'length (%)', color: token('--muted') },
            ticks: { color: token('--muted') },
            grid: { display: false }
          }
        }
      }
    });
  }

  /** The bar under the pointer, and the value of the scale there. */
  function under(event: PointerEvent): { index: number; value: number } | null {
    const scales = tempoChart?.scales;
    if (!scales) return null;
    const box = tempoCanvas.getBoundingClientRect();
    const index = Math.round(scales.x.getValueForPixel(event.clientX - box.left) ?? -1);
    const value = scales.y.getValueForPixel(event.clientY - box.top);
    return plan[index] && value ? { index, value } : null;
  }

  function down(event: PointerEvent): void {
    const at = under(event);
    if (!at) return;
    pulling = { measure: plan[at.index].measure, y: event.clientY };
    tempoCanvas.setPointerCapture(event.pointerId);
  }

  function up(event: PointerEvent): void {
    const from = pulling;
    pulling = null;
    const at = from && under(event);
    // A short way is a click, not a pull.
    if (!from || !at || Math.abs(event.clientY - from.y) < 5) return;
    const row = plan.find((r) => r.measure === from.measure)!;
    const wanted = unit === 'rate' ? (row.planned * row.rate) / at.value : at.value;
    pull(from.measure, wanted);
    workspace.selection.bar(from.measure);
  }

  /** Pulls a bar so that it lasts so many seconds. */
  function pull(measure: number, seconds: number): void {
    const row = plan.find((r) => r.measure === measure);
    if (!row || !(seconds > 0)) return;
    const before = (workspace.reading.timePulls[measure] ?? 1) - 1;
    const ratio = Math.max(0.5, Math.min(2.5, 1 + before + (seconds - row.planned) / row.literal));
    workspace.act({ type: 'pull-time', measure, ratio: Math.abs(ratio - 1) < 0.005 ? null : Math.round(1000 * ratio) / 1000 });
  }

  const chosen = $derived(plan.find((r) => r.measure === workspace.selection.from));
  const pulls = $derived(Object.keys(workspace.reading.timePulls).length);

  onMount(() => () => {
    tempoChart?.destroy();
    loudChart?.destroy();
  });
  $effect(() => {
    if (plan.length && unit) draw();
  });
</script>

<section class="curves" aria-label="Tempo, loudness and length of notes over the bars">
  <header>
    <span class="key"><i class="reading"></i> reading</span>
    <span class="key"><i class="page"></i> page to the letter</span>
    <span class="key"><i class="share"></i> length of notes</span>
    <Choice label="tempo in" bind:value={unit}
      ><SelectItem value="rate" text="beats a minute" /><SelectItem value="seconds" text="seconds" /></Choice
    >
    <span class="gap"></span>
    {#if chosen}
      <span class="quiet">bar {chosen.number}: {chosen.planned.toFixed(2)} s</span>
      <Act onclick={() => pull(chosen.measure, chosen.planned * 1.02)} data-testid="longer">a little longer</Act>
      <Act onclick={() => pull(chosen.measure, chosen.planned * 0.98)}>a little shorter</Act>
    {/if}
    {#if pulls}
      <Act
        onclick={() =>
          workspace.act({
            type: 'together',
            what: 'letting all pulled bars go',
            commands: Object.keys(workspace.reading.timePulls).map((m) => ({ type: 'pull-time' as const, measure: Number(m), ratio: null }))
          })}>let all pulled bars go ({pulls})</Act
      >
    {/if}
  </header>
  <div class="chart">
    <canvas
      bind:this={tempoCanvas}
      class:pulling={pulling !== null}
      onpointerdown={down}
      onpointerup={up}
      title="A click goes to the bar; pull a point up or down to make its bar quicker or broader"
      aria-label="Tempo of every bar; the same stands in the panel at the side"
    ></canvas>
  </div>
  <div class="chart">
    <canvas bind:this={loudCanvas} aria-label="Loudness of every bar and share of their values that notes sound"></canvas>
  </div>
</section>

<style>
  .curves {
    height: 100%;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) minmax(0, 1fr);
    padding: 0.4rem 1rem;
    box-sizing: border-box;
    gap: 0.2rem;
  }

  header {
    display: flex;
    gap: 1rem;
    align-items: center;
    font-size: 0.85rem;
    color: var(--muted);
  }

  .gap {
    flex: 1;
  }

  .key i {
    display: inline-block;
    width: 1.6rem;
    border-top: 2px solid var(--edition);
    vertical-align: middle;
  }

  .key i.page {
    border-top: 2px dashed var(--ink);
  }

  .key i.share {
    border-top: 2px dotted var(--tone-1);
  }

  .chart {
    position: relative;
    min-height: 0;
  }

  canvas {
    touch-action: none;
  }

  .pulling {
    cursor: ns-resize;
  }
</style>
