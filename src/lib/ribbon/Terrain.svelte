<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { levelDb, levelName, levelOf } from '$core/reading/dynamic-plan';
  import type { Command } from '$core/reading/commands/index';
  import { handName } from '$core/reading/hands';
  import { toNumber } from '$core/score/fraction';
  import { DYNAMIC_STEPS } from '$core/style/dynamics';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const HEIGHT = 84;
  const TOP = 8;
  const BOTTOM = 78;
  /** Steps of one press of an arrow key. */
  const NUDGE = 0.25;
  let width = $state(0);
  let drag = $state<{ measure: number; from: number; startY: number; level: number; moved: boolean } | null>(null);

  const score = $derived(workspace.score);
  const plan = $derived(workspace.plan);
  const cell = $derived(score ? width / score.measures.length : 0);
  /** The scale shows a step more than is used on either side. */
  const range = $derived(plan ? { low: Math.max(0, Math.floor(plan.softest) - 1), high: Math.min(9, Math.ceil(plan.loudest) + 1) } : null);
  const y = (level: number): number => BOTTOM - ((level - range!.low) / (range!.high - range!.low)) * (BOTTOM - TOP);
  const levelAtY = (value: number): number => range!.low + ((BOTTOM - value) / (BOTTOM - TOP)) * (range!.high - range!.low);

  /** Horizontal place of a time in quarters: bars are equally wide, as on the ribbon. */
  function x(time: number): number {
    const { measures } = score!;
    let low = 0;
    let high = measures.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (toNumber(measures[middle].start) <= time + 1e-9) low = middle;
      else high = middle - 1;
    }
    const m = measures[low];
    return (low + Math.max(0, Math.min(1, (time - toNumber(m.start)) / Math.max(1e-9, toNumber(m.length))))) * cell;
  }

  /** Signs at the edge are written as far apart as they can be read. */
  const every = $derived(range ? Math.max(2, Math.ceil((11 * (range.high - range.low)) / (BOTTOM - TOP))) : 2);
  const curve = $derived(plan && range && cell ? plan.points.map((p) => `${x(p.time).toFixed(1)},${y(p.level).toFixed(1)}`).join(' ') : '');
  const ground = $derived(
    plan && range && cell
      ? plan.points.map((p) => `${x(p.time).toFixed(1)},${y(Math.max(range.low, p.level - plan.background)).toFixed(1)}`).join(' ')
      : ''
  );
  const selected = $derived(workspace.selection);
  const here = $derived(plan?.bars[selected.from]);
  const inHairpin = $derived(plan?.hairpins.find((h) => workspace.selection.holds(h.start, h.end)) ?? null);

  const said = (level: number): string =>
    `${levelName(level)} (${levelDb(level) >= 0 ? '+' : '−'}${Math.abs(levelDb(level)).toFixed(0)} dB against mf)`;
  const barName = (m: number): string => (score ? workspace.barName(score.measures[m]) : '');

  function down(event: PointerEvent): void {
    if (!plan) return;
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const measure = Math.max(0, Math.min(plan.bars.length - 1, Math.floor((event.clientX - box.left) / cell)));
    workspace.selection.bar(measure, event.shiftKey);
    drag = { measure, from: plan.bars[measure].level, startY: event.clientY, level: plan.bars[measure].level, moved: false };
    (event.currentTarget as SVGSVGElement).setPointerCapture(event.pointerId);
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

  /** Raises or lowers all selected bars, in one act. */
  function nudge(by: number): void {
    if (!plan) return;
    const commands: Command[] = [];
    for (let m = selected.from; m <= selected.to; m++)
      commands.push({ type: 'pull-level', measure: m, level: Math.max(0, Math.min(9, Math.round((plan.bars[m].level + by) * 20) / 20)) });
    workspace.act(commands.length === 1 ? commands[0] : { type: 'together', what: `pulling ${commands.length} levels`, commands });
  }

  function letGo(): void {
    const commands: Command[] = [];
    for (let m = selected.from; m <= selected.to; m++)
      if (plan?.bars[m].pulled) commands.push({ type: 'pull-level', measure: m, level: null });
    if (commands.length) workspace.act({ type: 'together', what: 'letting levels go', commands });
  }

  function key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'ArrowUp') nudge(NUDGE);
    else if (event.key === 'ArrowDown') nudge(-NUDGE);
    else if (event.key === 'ArrowRight') workspace.selection.step(1, event.shiftKey);
    else if (event.key === 'ArrowLeft') workspace.selection.step(-1, event.shiftKey);
    else if (event.key === 'Delete') letGo();
    else return;
    event.preventDefault();
  }
</script>

<div class="terrain not-printed" bind:clientWidth={width}>
  {#if plan && range && cell && score && here}
    <svg
      {width}
      height={HEIGHT}
      role="slider"
      tabindex="0"
      aria-label="The dynamic plan: up and down arrows pull at the selected bars, Delete lets them go"
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={9}
      aria-valuenow={here.level}
      aria-valuetext="{barName(selected.from)}: {said(here.level)}"
      onpointerdown={down}
      onpointermove={move}
      onpointerup={up}
      onpointercancel={() => (drag = null)}
      onkeydown={key}
    >
      <rect class="chosen" x={selected.from * cell} y="0" width={(selected.to - selected.from + 1) * cell} height={HEIGHT} />
      {#each DYNAMIC_STEPS.slice(range.low, range.high + 1) as sign, k (sign)}
        <line class="step" x1="0" x2={width} y1={y(range.low + k)} y2={y(range.low + k)} />
      {/each}
      <polygon class="land" points="0,{BOTTOM} {curve} {width},{BOTTOM}" />
      <polyline class="back" points={ground} />
      <polyline class="front" points={curve} />
      {#each DYNAMIC_STEPS.slice(range.low, range.high + 1) as sign, k (sign)}
        {#if (range.high - range.low - k) % every === 1}<text x="3" y={y(range.low + k) + 3}>{sign}</text>{/if}
      {/each}
      {#each plan.hairpins as h (h.id)}
        {@const a = x(toNumber(h.start))}
        {@const b = x(toNumber(h.end))}
        <line class="hairpin" class:editorial={h.editorial} x1={a} y1={y(h.from)} x2={b} y2={y(h.to)}
          ><title>{levelName(h.from)} to {levelName(h.to)}{h.open ? ', no goal is marked' : ''}; room {h.room.toFixed(1)} steps</title
          ></line
        >
      {/each}
      {#each plan.bars.filter((b) => b.pulled) as b (b.measure)}
        <rect class="pulled" x={(b.measure + 0.5) * cell - 3} y={y(b.level) - 3} width="6" height="6"
          ><title>{barName(b.measure)} was pulled to {said(b.level)}</title></rect
        >
      {/each}
      {#if workspace.reading.plan.ceiling !== null}
        <line class="ceiling" x1="0" x2={width} y1={y(workspace.reading.plan.ceiling)} y2={y(workspace.reading.plan.ceiling)} />
      {/if}
      <path class="peak" d="M{(plan.peak.measure + 0.5) * cell},{Math.max(1, y(plan.peak.level) - 9)} l5,7 h-10 z"
        ><title>The peak: {barName(plan.peak.measure)}, {said(plan.peak.level)}</title></path
      >
      {#if drag?.moved}
        <line class="pull" x1={(drag.measure + 0.5) * cell} x2={(drag.measure + 0.5) * cell} y1={y(drag.from)} y2={y(drag.level)} />
        <text class="now" x={(drag.measure + 0.5) * cell + 6} y={y(drag.level)}>{said(drag.level)}</text>
      {/if}
    </svg>
    <p class="line">
      <span data-testid="plan-level"
        >{barName(selected.from)}: {said(here.level)}{here.pulled ? ', pulled' : ''}{inHairpin
          ? `; ${inHairpin.up ? 'crescendo' : 'diminuendo'} ${levelName(inHairpin.from)} to ${levelName(inHairpin.to)}, room ${inHairpin.room.toFixed(1)} steps`
          : `; ${Math.max(0, plan.loudest - levelOf(plan.points, toNumber(score.measures[selected.from].start))).toFixed(1)} steps below the peak`}</span
      >
      <span class="quiet" data-testid="plan-peak">Peak {barName(plan.peak.measure).toLowerCase()}, {levelName(plan.peak.level)}</span>
      <Act onclick={() => nudge(0.5)}>Louder</Act>
      <Act onclick={() => nudge(-0.5)}>Softer</Act>
      <Act onclick={() => workspace.act({ type: 'set-peak', measure: selected.from })}>Peak here</Act>
      {#if workspace.reading.plan.peak !== null}
        <Act onclick={() => workspace.act({ type: 'set-peak', measure: null })}>Let the peak go</Act>
      {/if}
      {#if plan.bars.slice(selected.from, selected.to + 1).some((b) => b.pulled)}<Act onclick={letGo}
          >Let {selected.from === selected.to ? 'the bar' : 'these bars'} go</Act
        >{/if}
      {#if workspace.hands.length > 1}
        <Choice label="Plan of the" value={workspace.hand} onchange={(value) => (workspace.chosenHand = Number(value))} data-testid="hand">
          {#each workspace.hands as staff (staff)}<SelectItem value={staff} text={handName(staff)} />{/each}
        </Choice>
      {/if}
      <Choice
        label="Ceiling"
        value={workspace.reading.plan.ceiling ?? ''}
        onchange={(value) => workspace.act({ type: 'set-ceiling', level: value === '' ? null : Number(value) })}
      >
        <SelectItem value="" text="none" />
        {#each [3, 4, 5, 6, 7, 8] as step (step)}<SelectItem value={step} text={DYNAMIC_STEPS[step]} />{/each}
      </Choice>
    </p>
  {/if}
</div>

<style>
  .terrain {
    border-bottom: 1px solid var(--line);
    background: var(--raised);
    min-height: 7rem;
  }

  svg {
    display: block;
    cursor: ns-resize;
    touch-action: none;
  }

  .chosen {
    fill: var(--selected);
  }

  .land {
    fill: var(--edition-soft);
    opacity: 0.75;
  }

  .front {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }

  .back {
    fill: none;
    stroke: var(--muted);
    stroke-width: 1;
    stroke-dasharray: 2 3;
  }

  .step {
    stroke: var(--line);
    stroke-width: 0.6;
  }

  .hairpin {
    stroke: var(--ink);
    stroke-width: 3;
  }

  .hairpin.editorial {
    stroke: var(--edition);
    stroke-dasharray: 5 3;
  }

  .pulled,
  .peak {
    fill: var(--edition);
  }

  .ceiling {
    stroke: var(--edition);
    stroke-dasharray: 8 3;
  }

  .pull {
    stroke: var(--edition);
    stroke-width: 2;
  }

  text {
    font: italic 10px var(--heading-face);
    fill: var(--muted);
    pointer-events: none;
  }

  .now {
    font: 600 12px var(--text-face);
    fill: var(--edition);
  }

  .line {
    display: flex;
    gap: 1rem;
    align-items: baseline;
    padding: 0.1rem 1rem 0.2rem;
    font-size: 0.88rem;
    white-space: nowrap;
    overflow: hidden;
  }
</style>
