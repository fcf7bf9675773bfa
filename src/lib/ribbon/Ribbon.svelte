<script lang="ts">
  import { untrack } from 'svelte';
  import type { Workspace } from '../workspace/workspace.svelte';
  import Bars from './Bars.svelte';
  import { Folded, LANES, type LaneName } from './folded.svelte';
  import FormLane from './FormLane.svelte';
  import KeysLane from './KeysLane.svelte';
  import Lane from './Lane.svelte';
  import Overview from './Overview.svelte';
  import PlanLane from './PlanLane.svelte';
  import { Scale } from './scale.svelte';
  import TimeLane from './TimeLane.svelte';

  interface Props {
    workspace: Workspace;
    /** Lanes that the room has. */
    lanes?: readonly LaneName[];
  }
  const { workspace, lanes = LANES }: Props = $props();

  // svelte-ignore state_referenced_locally -- a room keeps its workspace
  const scale = new Scale(workspace);
  const folded = new Folded();
  const open = $derived(lanes.filter((l) => !folded.has(l)));
  const shut = $derived(lanes.filter((l) => folded.has(l)));

  /** The window goes where the selection and the playing go. */
  $effect(() => {
    const measure = workspace.player.measure ?? workspace.selection.openEnd;
    if (scale.windowed) untrack(() => scale.follow(measure));
  });
</script>

<div class="ribbon not-printed">
  {#if scale.windowed}
    <div class="lane"><span class="head">all</span><Overview {workspace} {scale} /></div>
  {/if}
  {#if open.includes('form')}
    <Lane {workspace} {scale} name="form" height={45} onfold={() => folded.turn('form')}><FormLane {workspace} {scale} /></Lane>
  {/if}
  {#if open.includes('keys')}
    <Lane {workspace} {scale} name="keys" height={17} onfold={() => folded.turn('keys')}><KeysLane {workspace} {scale} /></Lane>
  {/if}
  {#if open.includes('plan')}
    <div class="lane" data-lane="plan">
      <button class="head" onclick={() => folded.turn('plan')} aria-expanded="true" title="Fold the plan away">plan</button>
      <PlanLane {workspace} {scale} />
    </div>
  {/if}
  {#if open.includes('time')}
    <Lane {workspace} {scale} name="time" height={18} onfold={() => folded.turn('time')}><TimeLane {workspace} {scale} /></Lane>
  {/if}
  <div class="lane" data-lane="bars">
    <span class="head">bars</span>
    <div class="strip" bind:clientWidth={scale.width}>
      {#if scale.cell}<Bars {workspace} {scale} />{/if}
    </div>
  </div>
  {#if shut.length}
    <p class="shut">
      {#each shut as name (name)}<button class="head" onclick={() => folded.turn(name)} aria-expanded="false" title="Open the lane"
          >{name}</button
        >{/each}
    </p>
  {/if}
</div>

<style>
  .ribbon {
    position: relative;
    border-bottom: 1px solid var(--line);
    background: var(--raised);
    overflow: hidden;
  }

  .ribbon :global(.lane) {
    position: relative;
    display: grid;
    grid-template-columns: 3rem minmax(0, 1fr);
    border-top: 1px solid var(--line);
  }

  .ribbon :global(.lane:first-child) {
    border-top: 0;
  }

  .ribbon :global(.head) {
    appearance: none;
    border: 0;
    background: none;
    text-align: left;
    padding: 0 0 0 0.6rem;
    font: 0.78rem var(--text-face);
    color: var(--muted);
    align-self: center;
  }

  .ribbon :global(button.head) {
    cursor: pointer;
  }

  .ribbon :global(button.head:hover) {
    color: var(--ink);
    text-decoration: underline;
  }

  .shut {
    display: flex;
    gap: 0.6rem;
    border-top: 1px solid var(--line);
    line-height: 1.1;
  }

  .ribbon :global(svg) {
    display: block;
    cursor: pointer;
    touch-action: manipulation;
  }

  .ribbon :global(svg.plan) {
    cursor: ns-resize;
    touch-action: none;
  }

  .ribbon :global(svg:focus-visible) {
    outline-offset: -2px;
  }

  .ribbon :global(.over) {
    position: absolute;
    right: 0.5rem;
    top: 0.1rem;
    padding: 0 0.4rem;
    background: var(--raised);
    font-size: 0.82rem;
    pointer-events: none;
  }

  .ribbon :global(:is(.chosen, .window)) {
    fill: var(--selected);
  }

  .ribbon :global(.overview .chosen) {
    fill: var(--edition);
  }

  .ribbon :global(.playing) {
    fill: var(--tone-1);
    opacity: 0.25;
  }

  .ribbon :global(:is(.group, .phrase, .section, .link)) {
    fill: none;
  }

  .ribbon :global(.group) {
    stroke: var(--muted);
    stroke-dasharray: 3 3;
  }

  .ribbon :global(.phrase) {
    stroke: var(--muted);
    stroke-width: 1.2;
  }

  .ribbon :global(.section) {
    stroke: var(--ink);
    stroke-width: 1;
  }

  .ribbon :global(.sequence) {
    fill: none;
    stroke: var(--tone-2);
    stroke-width: 2.5;
  }

  .ribbon :global(.link) {
    stroke: var(--tone-2);
    stroke-width: 1.2;
    stroke-dasharray: 3 2;
  }

  .ribbon :global(.key) {
    fill: var(--tone-1-soft);
  }

  .ribbon :global(.key.other) {
    fill: var(--tone-2-soft);
  }

  .ribbon :global(text) {
    font: 11px var(--text-face);
    fill: var(--muted);
    /* Words stay legible over lines. */
    stroke: var(--raised);
    stroke-width: 3px;
    paint-order: stroke;
    pointer-events: none;
  }

  .ribbon :global(:is(.number, .key-name)) {
    stroke: none;
  }

  .ribbon :global(.section-name) {
    fill: var(--ink);
    font-weight: 600;
  }

  .ribbon :global(.key-name) {
    fill: var(--ink);
  }

  .ribbon :global(.cadence) {
    stroke: var(--ink);
    stroke-width: 1.5;
  }

  .ribbon :global(.cadence-name) {
    font-size: 9.5px;
    pointer-events: auto;
  }

  .ribbon :global(.level) {
    font: italic 10px var(--heading-face);
  }

  .ribbon :global(.land) {
    fill: var(--edition-soft);
    opacity: 0.75;
  }

  .ribbon :global(.front) {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }

  .ribbon :global(.back) {
    fill: none;
    stroke: var(--muted);
    stroke-width: 1;
    stroke-dasharray: 2 3;
  }

  .ribbon :global(.step) {
    stroke: var(--line);
    stroke-width: 0.6;
  }

  .ribbon :global(.hairpin) {
    stroke: var(--ink);
    stroke-width: 3;
  }

  .ribbon :global(.hairpin.editorial) {
    stroke: var(--edition);
    stroke-dasharray: 5 3;
  }

  .ribbon :global(:is(.pulled, .peak, .marked)) {
    fill: var(--edition);
  }

  .ribbon :global(.ceiling) {
    stroke: var(--edition);
    stroke-dasharray: 8 3;
  }

  .ribbon :global(.pull) {
    stroke: var(--edition);
    stroke-width: 2;
  }

  .ribbon :global(.now) {
    font: 600 12px var(--text-face);
    fill: var(--edition);
  }

  .ribbon :global(.tempo) {
    fill: none;
    stroke: var(--tone-3);
    stroke-width: 1.2;
    stroke-dasharray: 5 3;
  }

  .ribbon :global(.tempo-name) {
    fill: var(--tone-3);
  }

  .ribbon :global(.bar) {
    fill: none;
    stroke: var(--line);
  }

  .ribbon :global(.open) {
    fill: none;
    stroke: var(--edition);
    stroke-width: 1.4;
  }
</style>
