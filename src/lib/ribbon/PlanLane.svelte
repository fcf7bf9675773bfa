<script lang="ts">
  import { levelName } from '$core/reading/dynamic-plan';
  import { toNumber } from '$core/score/fraction';
  import { DYNAMIC_STEPS } from '$core/style/dynamics';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { barName, letGo, levelSaid, nudge, planSays, PULL } from './plan';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  const HEIGHT = 46;
  const TOP = 7;
  const BOTTOM = HEIGHT - 3;
  /** Pixels that two names of levels need between them. */
  const LINE = 13;
  let drag = $state<{ measure: number; from: number; startY: number; level: number; moved: boolean } | null>(null);
  let looking = $state(false);

  const plan = $derived(workspace.plan);
  const selected = $derived(workspace.selection);
  /** The scale shows a step more than is used on either side. */
  const range = $derived(plan ? { low: Math.max(0, Math.floor(plan.softest) - 1), high: Math.min(9, Math.ceil(plan.loudest) + 1) } : null);
  const y = (level: number): number => BOTTOM - ((level - range!.low) / (range!.high - range!.low)) * (BOTTOM - TOP);
  const levelAtY = (value: number): number => range!.low + ((BOTTOM - value) / (BOTTOM - TOP)) * (range!.high - range!.low);
  /** Signs at the edge are written as far apart as they can be read. */
  const every = $derived(range ? Math.max(2, Math.ceil((LINE * (range.high - range.low)) / (BOTTOM - TOP))) : 2);
  const line = (lower: number): string =>
    plan!.points.map((p) => `${scale.at(p.time).toFixed(1)},${y(Math.max(range!.low, p.level - lower)).toFixed(1)}`).join(' ');

  function down(event: PointerEvent): void {
    if (!plan) return;
    const svg = event.currentTarget as SVGSVGElement;
    const measure = scale.barAt(event.clientX - svg.getBoundingClientRect().left);
    workspace.selection.bar(measure, event.shiftKey);
    drag = { measure, from: plan.bars[measure].level, startY: event.clientY, level: plan.bars[measure].level, moved: false };
    svg.setPointerCapture(event.pointerId);
  }

  function move(event: PointerEvent): void {
    if (!drag) return;
    const by = levelAtY(0) - levelAtY(event.clientY - drag.startY);
    if (Math.abs(event.clientY - drag.startY) > 3) drag.moved = true;
    drag.level = Math.max(0, Math.min(9, drag.from - by));
  }

  function up(): void {
    if (drag?.moved) workspace.act({ type: 'pull-level', measure: drag.measure, level: Math.round(drag.level * 20) / 20 });
    drag = null;
  }

  function key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'ArrowUp') nudge(workspace, PULL);
    else if (event.key === 'ArrowDown') nudge(workspace, -PULL);
    else if (event.key === 'Delete') letGo(workspace);
    else if (!workspace.selection.key(event)) return;
    event.preventDefault();
  }
</script>

{#if plan && range && scale.cell && workspace.score}
  <svg
    class="plan"
    width={scale.width}
    height={HEIGHT}
    role="slider"
    tabindex="0"
    aria-label="The dynamic plan: up and down arrows pull at the selected bars, Delete lets them go"
    aria-orientation="vertical"
    aria-valuemin={0}
    aria-valuemax={9}
    aria-valuenow={plan.bars[selected.from]?.level ?? 0}
    aria-valuetext={planSays(workspace)}
    onpointerdown={down}
    onpointermove={move}
    onpointerup={up}
    onpointercancel={() => (drag = null)}
    onpointerenter={() => (looking = true)}
    onpointerleave={() => (looking = false)}
    onkeydown={key}
  >
    <rect class="chosen" x={scale.bar(selected.from)} y="0" width={(selected.to - selected.from + 1) * scale.cell} height={HEIGHT} />
    <polygon class="land" points="{scale.at(0).toFixed(1)},{BOTTOM} {line(0)} {scale.width},{BOTTOM}" />
    <polyline class="back" points={line(plan.background)} />
    <polyline class="front" points={line(0)} />
    {#each DYNAMIC_STEPS.slice(range.low, range.high + 1) as sign, k (sign)}
      {#if (range.high - range.low - k) % every === 1}
        <line class="step" x1="0" x2={scale.width} y1={y(range.low + k)} y2={y(range.low + k)} />
        <text class="level" x="3" y={y(range.low + k) + 4}>{sign}</text>
      {/if}
    {/each}
    {#each plan.hairpins.filter((h) => scale.sees(h.start, h.end)) as h (h.id)}
      <line
        class="hairpin"
        class:editorial={h.editorial}
        x1={scale.at(toNumber(h.start))}
        y1={y(h.from)}
        x2={scale.at(toNumber(h.end))}
        y2={y(h.to)}
        ><title
          >{h.up ? 'Crescendo' : 'Diminuendo'} from {levelName(h.from)} to {levelName(h.to)}{h.open ? ', no goal is marked' : ''}</title
        ></line
      >
    {/each}
    {#each plan.bars.filter((b) => b.pulled && b.measure >= scale.from && b.measure < scale.to) as b (b.measure)}
      <rect class="pulled" x={scale.bar(b.measure) + scale.cell / 2 - 3} y={y(b.level) - 3} width="6" height="6"
        ><title>{barName(workspace, b.measure)} was pulled to {levelSaid(b.level)}</title></rect
      >
    {/each}
    {#if workspace.reading.plan.ceiling !== null}
      <line class="ceiling" x1="0" x2={scale.width} y1={y(workspace.reading.plan.ceiling)} y2={y(workspace.reading.plan.ceiling)}
        ><title>The ceiling of the plan: {levelName(workspace.reading.plan.ceiling)}</title></line
      >
    {/if}
    <path class="peak" d="M{scale.bar(plan.peak.measure) + scale.cell / 2},{Math.max(1, y(plan.peak.level) - 8)} l4,6 h-8 z"
      ><title>The peak: {barName(workspace, plan.peak.measure).toLowerCase()}, {levelSaid(plan.peak.level)}</title></path
    >
    {#if drag?.moved}
      <line
        class="pull"
        x1={scale.bar(drag.measure) + scale.cell / 2}
        x2={scale.bar(drag.measure) + scale.cell / 2}
        y1={y(drag.from)}
        y2={y(drag.level)}
      />
      <text class="now" x={scale.bar(drag.measure) + scale.cell / 2 + 6} y={y(drag.level)}>{levelSaid(drag.level)}</text>
    {/if}
  </svg>
  {#if looking && !drag}<p class="over" data-testid="plan-over">{planSays(workspace)}</p>{/if}
{/if}
