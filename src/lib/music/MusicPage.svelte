<script lang="ts">
  import { screenSystems } from '$core/edition/screen';
  import { placed, type RowEntry } from '$core/edition/mei';
  import type { Marking } from '$core/markings/marking';
  import { fittingOssias, type Ossia } from '$core/reading/ossia';
  import { measureAt } from '$core/score/position';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { Dragging } from './dragging';
  import FirstPicture from './FirstPicture.svelte';
  import Strip from './Strip.svelte';
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
    /** The first systems of the source stand here until the engraver has drawn its own. */
    ready?: boolean;
    /** Notes are taken in hand and marked, marks are taken hold of. */
    writable?: boolean;
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
    choosing = false,
    ready = false,
    writable = false
  }: Props = $props();

  /** Pixels from a head within which a click means its note. */
  const NEAR_A_NOTE = 7;
  /** Pixels from a bar line within which a click means the line. */
  const NEAR_A_LINE = 6;
  /** Id of a proposal that is drawn to be looked at. */
  const LOOKED_AT = 'looked-at';

  let width = $state(0);
  let page: HTMLDivElement;
  let pictures = $state(0);
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const chunks = $derived(workspace.score && width ? screenSystems(workspace.score, workspace.facts.phrases, line, size) : []);
  const options = $derived({
    line,
    size,
    sounding: workspace.pitch === 'sounding',
    version: workspace.engraving
  });
  const staves = $derived(workspace.score?.parts.reduce((n, p) => n + p.staves, 0) ?? 1);

  const pencil = $derived(writable ? workspace.pencil : null);
  /** A proposal that is looked at stands on the page among the markings. */
  const drawn = $derived(pencil?.proposal ? [...markings, { ...pencil.proposal.marking, id: LOOKED_AT }] : markings);
  /** Chosen notes show as such, beside what the room says of notes. */
  const classes = $derived.by(() => {
    const chosen = pencil?.chosen;
    if (!chosen?.size) return noteClasses;
    const all = new Map(noteClasses ?? []);
    for (const id of chosen) all.set(id, `${all.get(id) ?? ''} held`.trim());
    return all;
  });

  const ossias = $derived(workspace.score ? fittingOssias(workspace.score, workspace.reading.ossias).filter((o) => o.printed) : []);

  /** Markings and rows by chunk, so that only what changed is drawn again. */
  const sorted = $derived.by(() => {
    const { score } = workspace;
    if (!score) return [];
    const place = (time: Marking['start']) => chunks.findIndex((c) => measureAt(score, time).index < c.to);
    const result = chunks.map(() => ({ markings: [] as Marking[], rows: [] as RowEntry[], ossias: [] as Ossia[] }));
    for (const m of placed(drawn, (id) => workspace.note(id))) result[place(m.start)]?.markings.push(m);
    for (const r of rows) result[place(r.start)]?.rows.push(r);
    for (const o of ossias) chunks.forEach((c, k) => o.from < c.to && o.to >= c.from && result[k].ossias.push(o));
    return result;
  });

  let dragging: Dragging | null = null;
  /** A mark was taken hold of: the click that follows chooses nothing else. */
  let took = false;
  $effect(() => {
    dragging = pencil && new Dragging(page, pencil, (id) => workspace.note(id));
  });

  function click(event: MouseEvent): void {
    if (!selectable || !(event.target instanceof Element)) return;
    const index = barUnder(event);
    if (pencil) {
      if (!took) choose(event, event.target, index);
      took = false;
    } else {
      if (Number.isFinite(index)) workspace.selection.bar(index, event.shiftKey);
      const note = choosing ? event.target.closest('g.note') : null;
      if (note) workspace.selection.note(note.id);
      const sign = event.target.closest('.editorial');
      if (sign?.id) workspace.selection.openMarking = sign.id;
    }
    page.focus({ preventScroll: true });
  }

  /** Index of the bar under the pointer; between the lines of a staff nothing is painted that could be hit. */
  function barUnder({ clientX, clientY }: MouseEvent): number {
    for (const measure of page.querySelectorAll('g.measure')) {
      const box = measure.getBoundingClientRect();
      if (clientX >= box.left && clientX <= box.right && clientY >= box.top && clientY <= box.bottom)
        return Number(/^m(\d+)$/.exec(measure.id)?.[1]);
    }
    return NaN;
  }

  /** A note, a rest, what stands before a bar line; elsewhere the bar. */
  function choose({ clientX, clientY, shiftKey }: MouseEvent, target: Element, measure: number): void {
    const id = noteAt(target, clientX, clientY);
    if (id) return pencil!.choose(id, shiftKey);
    if (!Number.isFinite(measure)) return;
    const line = page.querySelector(`#m${measure} > g.barLine`)?.getBoundingClientRect();
    if (line && Math.abs(clientX - (line.left + line.right) / 2) <= NEAR_A_LINE)
      return pencil!.chooseBarLine(measure, 1, workspace.reading.part);
    workspace.selection.bar(measure, shiftKey);
    pencil!.none();
  }

  /** The note or rest under the pointer, or so near that it is meant: heads are small, and half notes are hollow. */
  function noteAt(target: Element, x: number, y: number): string | null {
    const under = target.closest('g.note, g.rest, g.mRest');
    if (under && workspace.note(under.id)) return under.id;
    let best: string | null = null;
    let least = NEAR_A_NOTE;
    for (const sign of page.querySelectorAll('g.note, g.rest')) {
      const box = (sign.querySelector('g.notehead') ?? sign).getBoundingClientRect();
      const distance = Math.hypot(Math.max(0, box.left - x, x - box.right), Math.max(0, box.top - y, y - box.bottom));
      if (distance < least && workspace.note(sign.id)) [best, least] = [sign.id, distance];
    }
    return best;
  }

  function down(event: PointerEvent): void {
    took = dragging?.down(event) ?? false;
    if (took) event.preventDefault();
  }

  function key(event: KeyboardEvent): void {
    if (!selectable || event.altKey) return;
    if (pencil) {
      if (event.target === page && pencil.key(event)) event.preventDefault();
      return;
    }
    if (event.ctrlKey || event.metaKey) return;
    if (!workspace.selection.key(event, { ArrowDown: 4, ArrowUp: -4 })) return;
    event.preventDefault();
  }

  /** From anywhere in the room a letter goes to the page, where it is not typed into a field or a dialog. */
  function letter(event: KeyboardEvent): void {
    if (!pencil || event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || event.key.length !== 1 || event.key === ' ')
      return;
    if (!(event.target instanceof HTMLElement) || event.target === page) return;
    if (event.target.closest('input, textarea, select, [contenteditable], [role=dialog], [role=slider], [data-testid=marking]')) return;
    if (pencil.key(event)) {
      event.preventDefault();
      page.focus({ preventScroll: true });
    }
  }

  /** Where the strip stands: under the system of the chosen note. */
  const stripPlace = $derived.by(() => {
    void pictures;
    void width;
    const id = pencil?.held?.to;
    const note = id && page?.querySelector(`[id="${CSS.escape(id)}"]`);
    const system = note && note.closest('g.system');
    if (!note || !system) return null;
    const [a, b, c] = [page.getBoundingClientRect(), note.getBoundingClientRect(), system.getBoundingClientRect()];
    return { x: b.left - a.left - 20, y: c.bottom - a.top + 4 };
  });

  function shown(): void {
    pictures++;
    ondrawn?.();
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

<svelte:window onkeydown={letter} />

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (the page is one widget: bars are chosen by arrow keys or pointer) -->
<div
  class="music"
  bind:this={page}
  bind:clientWidth={width}
  onclick={click}
  onkeydown={key}
  onpointerdown={down}
  onpointermove={(e) => dragging?.move(e)}
  onpointerup={(e) => dragging?.up(e)}
  onpointercancel={() => dragging?.cancel()}
  tabindex={selectable ? 0 : undefined}
  role={selectable ? 'application' : 'img'}
  aria-roledescription={!selectable
    ? undefined
    : writable
      ? 'score, arrow keys walk from note to note, with Shift a range; Tab goes on to marks'
      : 'score, arrow keys choose bars, with Shift a range'}
  aria-label={selectable
    ? `Score, ${workspace.score ? workspace.barName(workspace.score.measures[workspace.selection.from]) : ''} selected`
    : 'Engraved music'}
>
  {#if !pictures && ready && size === 1}<FirstPicture source={workspace.data.sourceHash} engine={workspace.data.engine} />{/if}
  {#if workspace.score}
    {#each chunks as chunk, k (chunk.from)}
      <SystemView
        engraver={workspace.engraver}
        {chunk}
        {options}
        markings={sorted[k]?.markings ?? []}
        rows={sorted[k]?.rows ?? []}
        ossias={sorted[k]?.ossias ?? []}
        selection={selectable ? workspace.selection : null}
        openMarking={selectable ? workspace.selection.openMarking : null}
        {eager}
        noteClasses={classes}
        reserve={(60 + 50 * staves) * chunk.systems.length}
        ondrawn={shown}
      />
    {/each}
  {/if}
  {#if pencil && stripPlace}
    <Strip {pencil} place={stripPlace} room={width} ondone={() => page.focus({ preventScroll: true })} />
  {/if}
</div>
{#if pencil}<p class="visually-hidden" aria-live="polite" data-testid="aloud">{pencil.says}</p>{/if}

<style>
  .music {
    position: relative;
    min-height: 100%;
  }

  .music :global(g.note.held),
  .music :global(g.rest.held),
  .music :global(g.note.goal),
  .music :global(g.rest.goal) {
    color: var(--edition);
    fill: var(--edition);
  }

  .music :global(.editorial) {
    cursor: grab;
  }

  .music :global([id='looked-at']),
  .music :global([id^='lies-']) {
    opacity: 0.6;
  }

  .music :global(g.note.sounding) {
    color: var(--tone-1);
    fill: var(--tone-1);
  }

  .music:focus-visible {
    outline-offset: -2px;
  }
</style>
