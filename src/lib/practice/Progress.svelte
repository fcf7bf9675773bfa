<script lang="ts">
  import { onMount } from 'svelte';
  import { axis, Chart, token } from '../charts';
  import { SelectItem } from 'carbon-components-svelte';
  import { inShort } from '$core/rehearsal/plan/day';
  import { inPlanOrder } from '$core/rehearsal/plan/plan';
  import { taskDays } from '$core/rehearsal/plan/visit';
  import Choice from '../controls/Choice.svelte';
  import Figures from '../controls/Figures.svelte';
  import type { Practice } from './practice.svelte';

  /** How the tempo of a task has grown over the days, against its goal. */
  const { practice }: { practice: Practice } = $props();

  const practised = $derived(
    inPlanOrder(practice.plan).filter((t) => t.tempo && practice.visits.some((v) => v.task === t.key && v.ladder))
  );
  let wanted = $state('');
  const count = (key: string): number => practice.visits.filter((v) => v.task === key).length;
  const most = $derived([...practised].sort((a, b) => count(b.key) - count(a.key))[0] ?? null);
  const task = $derived(practised.find((t) => t.key === wanted) ?? most);
  const days = $derived(task ? taskDays(practice.visits, task.key) : []);
  const spent = $derived(Math.round(practice.visits.reduce((n, v) => n + v.seconds, 0) / 60));

  let canvas = $state<HTMLCanvasElement | null>(null);
  let chart: Chart | null = null;

  $effect(() => {
    chart?.destroy();
    chart = null;
    if (!canvas || !task?.tempo || !days.length) return;
    const line = { borderWidth: 1.5, pointRadius: 2.5, spanGaps: true };
    chart = new Chart(canvas, {
      type: 'line',
      data: {
        labels: days.map((d) => inShort(d.day)),
        datasets: [
          { ...line, label: 'best clean tempo', data: days.map((d) => d.best), borderColor: token('--edition') },
          { ...line, label: 'where the day began', data: days.map((d) => d.start), borderColor: token('--tone-1'), borderDash: [5, 3] },
          {
            ...line,
            label: 'goal',
            data: days.map(() => task!.tempo!.goal),
            borderColor: token('--muted'),
            pointRadius: 0,
            borderDash: [2, 3]
          }
        ]
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: false } },
        scales: {
          x: axis(null, false),
          y: { ...axis('quarters a minute', true), grace: '10%' }
        }
      }
    });
  });
  onMount(() => () => chart?.destroy());
</script>

{#if task}
  <p>
    <Choice label="Task" value={task.key} onchange={(key) => (wanted = key)}
      >{#each practised as t (t.key)}<SelectItem value={t.key} text={t.title} />{/each}</Choice
    >
    <span class="quiet"
      >{spent} minutes in all of the plan. Full line: the best clean tempo of the day; long dashes: where it began; short dashes: the goal.</span
    >
  </p>
  <div class="canvas"><canvas bind:this={canvas} aria-label="Tempo over the days; the same stands in the table"></canvas></div>
  <Figures heads={['Day', 'Began at', 'Best clean', 'Clean runs', 'Missed', 'Minutes']} rows={days} data-testid="task-days">
    {#snippet cell(d, column)}
      {[inShort(d.day), d.start ?? '–', d.best ?? '–', d.clean, d.missed, Math.round(d.minutes)][column]}
    {/snippet}
  </Figures>
{:else}
  <p class="empty quiet">Here the tempi grow, once something with a ladder has been practised in a session.</p>
{/if}

<style>
  .canvas {
    position: relative;
    height: 16rem;
  }

  .empty {
    padding: 1.5rem 0;
  }
</style>
