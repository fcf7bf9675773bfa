<script lang="ts">
  import { onMount } from 'svelte';
  import { axis, Chart, token } from '../charts';
  import { DIFFICULTY_PARTS, PART_WORDS, type BarDifficulty, type DifficultyPart, type HotSpot } from '$core/rehearsal/difficulty';
  import { SelectItem } from 'carbon-components-svelte';
  import Choice from '../controls/Choice.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    difficulty: readonly BarDifficulty[];
    spots: readonly HotSpot[];
  }
  const { workspace, difficulty, spots }: Props = $props();

  let canvas: HTMLCanvasElement;
  let chart: Chart | null = null;
  let part = $state<DifficultyPart | ''>('');

  const chosen = (k: number): boolean => k >= workspace.selection.from && k <= workspace.selection.to;
  const hot = (k: number): boolean => spots.some((s) => k >= s.from && k <= s.to);
  const colours = (): string[] => difficulty.map((_, k) => token(chosen(k) ? '--edition' : hot(k) ? '--tone-1' : '--tone-1-soft'));
  const told = (b: BarDifficulty): string[] =>
    DIFFICULTY_PARTS.filter((p) => b.parts[p] >= 0.05)
      .sort((x, y) => b.parts[y] - b.parts[x])
      .slice(0, 4)
      .map((p) => `${PART_WORDS[p]} ${b.parts[p].toFixed(2)}`);

  function draw(): void {
    chart?.destroy();
    const line = part
      ? [
          {
            type: 'line' as const,
            label: PART_WORDS[part],
            data: difficulty.map((b) => b.parts[part as DifficultyPart]),
            borderColor: token('--ink'),
            borderWidth: 1.5,
            pointRadius: 1.5
          }
        ]
      : [];
    chart = new Chart(canvas, {
      data: {
        labels: difficulty.map((b) => workspace.score?.measures[b.measure].number ?? ''),
        datasets: [...line, { type: 'bar', label: 'how hard', data: difficulty.map((b) => b.value), backgroundColor: colours() }]
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        onClick: (event, found) =>
          found[0] && workspace.selection.bar(found[0].index, (event.native as MouseEvent | null)?.shiftKey ?? false),
        plugins: { legend: { display: false }, tooltip: { callbacks: { afterBody: (items) => told(difficulty[items[0].dataIndex]) } } },
        scales: {
          x: axis(null, false),
          y: { ...axis('how hard', true), min: 0, max: 1 }
        }
      }
    });
  }

  onMount(() => () => chart?.destroy());
  $effect(() => {
    if (difficulty.length) draw();
  });
  $effect(() => {
    const shown = colours();
    if (!chart) return;
    chart.data.datasets[chart.data.datasets.length - 1].backgroundColor = shown;
    chart.update('none');
  });
</script>

<section class="difficulty" aria-label="How hard each bar is">
  <div class="canvas">
    <canvas bind:this={canvas} aria-label="How hard each bar is, from 0 to 1; the same stands under Hard places"></canvas>
  </div>
  <div class="which">
    <Choice label="with the line of" bind:value={part}
      ><SelectItem value="" text="nothing" />{#each DIFFICULTY_PARTS as p (p)}<SelectItem value={p} text={PART_WORDS[p]} />{/each}</Choice
    >
  </div>
</section>

<style>
  .difficulty {
    height: 100%;
    display: flex;
    flex-direction: column;
    padding: 0.3rem 1rem 0.2rem;
    box-sizing: border-box;
  }

  .canvas {
    position: relative;
    flex: 1;
    min-height: 0;
  }

  .which {
    font-size: 0.85rem;
  }
</style>
