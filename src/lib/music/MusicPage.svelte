<script lang="ts">
  import { planSystems } from '$core/edition/systems';
  import { placed, type RowEntry } from '$core/edition/mei';
  import type { Marking } from '$core/markings/marking';
  import { measureAt } from '$core/score/position';
  import type { Workspace } from '../workspace/workspace.svelte';
  import SystemView from './SystemView.svelte';

  interface Props {
    workspace: Workspace;
    markings: Marking[];
    rows?: RowEntry[];
    selectable?: boolean;
    eager?: boolean;
    /** Size of the staff against the usual one. */
    size?: number;
    ondrawn?: () => void;
    noteClasses?: ReadonlyMap<string, string>;
    /** A click on a note chooses it. */
    choosing?: boolean;
  }
  const {
    workspace,
    markings,
    rows = [],
    selectable = false,
    eager = false,
    size = 1,
    ondrawn,
    noteClasses,
    choosing = false
  }: Props = $props();

  /** Engraver's units per pixel at scale 100; note spaces that fit into 100 pixels of line at the usual size. */
  const SCALE = 40;
  const SPACES_PER_100_PX = 5.4;

  let width = $state(0);
  let page: HTMLDivElement;
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const starts = $derived(new Set(workspace.score ? workspace.facts.phrases.map((p) => measureAt(workspace.score!, p.start).index) : []));
  const chunks = $derived(
    workspace.score && width ? planSystems(workspace.score, (line / 100) * SPACES_PER_100_PX * (1 / size), starts) : []
  );
  const options = $derived({
    pageWidth: Math.round((line * 100) / (SCALE * size)),
    scale: SCALE,
    sounding: workspace.pitch === 'sounding',
    version: workspace.engraving
  });
  const staves = $derived(workspace.score?.parts.reduce((n, p) => n + p.staves, 0) ?? 1);

  /** Markings and rows by chunk, so that only what changed is drawn again. */
  const sorted = $derived.by(() => {
    const { score } = workspace;
    if (!score) return [];
    const place = (time: Marking['start']) => chunks.findIndex((c) => measureAt(score, time).index < c.to);
    const result = chunks.map(() => ({ markings: [] as Marking[], rows: [] as RowEntry[] }));
    for (const m of placed(markings, (id) => workspace.note(id))) result[place(m.start)]?.markings.push(m);
    for (const r of rows) result[place(r.start)]?.rows.push(r);
    return result;
  });

  function click(event: MouseEvent): void {
    if (!selectable || !(event.target instanceof Element)) return;
    const measure = event.target.closest('g.measure');
    const index = measure ? Number(/^m(\d+)$/.exec(measure.id)?.[1]) : NaN;
    if (Number.isFinite(index)) workspace.selection.bar(index, event.shiftKey);
    const note = choosing ? event.target.closest('g.note') : null;
    if (note) workspace.selection.note(note.id);
    const sign = event.target.closest('.editorial');
    if (sign?.id) workspace.selection.openMarking = sign.id;
    page.focus({ preventScroll: true });
  }

  function key(event: KeyboardEvent): void {
    if (!selectable || event.altKey || event.ctrlKey || event.metaKey) return;
    const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 4, ArrowUp: -4 }[event.key];
    if (step) workspace.selection.step(step, event.shiftKey);
    else if (event.key === 'Home') workspace.selection.bar(0, event.shiftKey);
    else if (event.key === 'End') workspace.selection.bar(Infinity, event.shiftKey);
    else return;
    event.preventDefault();
  }

  /** While something plays, its notes are lit and its system is in view. */
  $effect(() => {
    const { player } = workspace;
    void player.seconds;
    const now = new Set(player.soundingNotes());
    for (const old of page.querySelectorAll('g.note.sounding')) if (!now.has(old.id)) old.classList.remove('sounding');
    for (const id of now) page.querySelector(`#${CSS.escape(id)}`)?.classList.add('sounding');
  });

  $effect(() => {
    const { measure } = workspace.player;
    if (measure === null) return;
    const chunk = chunks.find((c) => measure >= c.from && measure < c.to);
    const system = page.querySelector(`.system[data-from="${chunk?.from}"]`);
    const place = system?.querySelector(`#m${measure}`) ?? system;
    place?.scrollIntoView({ block: 'nearest' });
  });

  /** The selected bar comes into view. */
  $effect(() => {
    const index = workspace.selection.openEnd;
    if (!selectable) return;
    const chunk = chunks.find((c) => index >= c.from && index < c.to);
    page.querySelector(`.system[data-from="${chunk?.from}"]`)?.scrollIntoView({ block: 'nearest' });
  });
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (the page is one widget: bars are chosen by arrow keys or pointer) -->
<div
  class="music"
  bind:this={page}
  bind:clientWidth={width}
  onclick={click}
  onkeydown={key}
  tabindex={selectable ? 0 : undefined}
  role={selectable ? 'application' : 'img'}
  aria-roledescription={selectable ? 'score, arrow keys choose bars, with shift a range' : undefined}
  aria-label={selectable
    ? `Score, ${workspace.score ? workspace.barName(workspace.score.measures[workspace.selection.from]) : ''} selected`
    : 'Engraved music'}
>
  {#if workspace.score}
    {#each chunks as chunk, k (chunk.from)}
      <SystemView
        engraver={workspace.engraver}
        {chunk}
        {options}
        markings={sorted[k]?.markings ?? []}
        rows={sorted[k]?.rows ?? []}
        selection={selectable ? workspace.selection : null}
        openMarking={selectable ? workspace.selection.openMarking : null}
        {eager}
        {noteClasses}
        reserve={(60 + 50 * staves) * chunk.systems.length}
        {ondrawn}
      />
    {/each}
  {:else}
    <p class="quiet">The score is being opened …</p>
  {/if}
</div>

<style>
  .music {
    min-height: 100%;
  }

  .music :global(g.note.sounding) {
    color: var(--tone-1);
    fill: var(--tone-1);
  }

  .music:focus-visible {
    outline-offset: -2px;
  }
</style>
