<script lang="ts">
  import { keyAlter } from '$core/score/accidentals';
  import { atStaffStep, staffStep } from '$core/score/pitch';
  import { screenSystems } from '$core/edition/screen';
  import { middleOf } from '$core/writing/to-tune';
  import { keyAt } from '$core/writing/written';
  import type { Place } from '$core/writing/edits';
  import { sharedEngraver } from '../music/engraver';
  import SystemView from '../music/SystemView.svelte';
  import type { Writing } from './writing.svelte';

  const { writing }: { writing: Writing } = $props();

  const engraver = sharedEngraver();
  /** Pixels from a head within which a click means its note. */
  const NEAR = 7;
  let page: HTMLDivElement;
  let width = $state(0);
  let opened = false;
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const chunks = $derived(width ? screenSystems(writing.score, [], line) : []);

  /** A number that differs where what stands in some bars differs, so that only they are drawn anew. */
  function versionOf(from: number, to: number): number {
    const { head, lanes, bars } = writing.written;
    const text = JSON.stringify([
      from === 0 ? head : [head.clefs, head.key, head.meter, head.transpose],
      lanes,
      bars.slice(from, to + 1),
      bars.slice(0, from).findLast((b) => b.key)?.key,
      bars.slice(0, from).findLast((b) => b.meter !== undefined)?.meter,
      to === bars.length
    ]);
    // FNV-1a, 32 bits.
    let hash = 0x811c9dc5;
    for (let k = 0; k < text.length; k++) hash = Math.imul(hash ^ text.charCodeAt(k), 0x01000193);
    return hash;
  }

  $effect.pre(() => {
    const { document, score } = writing;
    if (opened) engraver.renew(document, score);
    else engraver.open(document, score);
    opened = true;
  });

  /** Where each sound stands, by its id. */
  const places = $derived(
    new Map<string, Place>(
      writing.written.bars.flatMap((b, bar) => b.lanes.flatMap((sounds, lane) => sounds.map((s, at) => [s.id, { bar, lane, at }] as const)))
    )
  );
  const classes = $derived.by(() => {
    const marked = new Map<string, string>();
    for (const bar of writing.written.bars) for (const lane of bar.lanes) for (const s of lane) if (s.open) marked.set(s.id, 'unsaid');
    if (writing.stage !== 'rhythm')
      for (const p of writing.chosen) {
        const sound = writing.written.bars[p.bar]?.lanes[p.lane]?.[p.at];
        if (sound) marked.set(sound.id, `${marked.get(sound.id) ?? ''} here`.trim());
      }
    return marked;
  });
  const selection = $derived({ from: writing.place.bar, to: writing.place.bar });

  /** The sound under the pointer, or so near that it is meant. */
  function placeUnder(x: number, y: number): Place | null {
    let best: Place | null = null;
    let least = NEAR;
    for (const sign of page.querySelectorAll('g.note, g.rest, g.mRest')) {
      const found = places.get(sign.id.replace(/-(?:\d+|t\d+)(?:-t\d+)?$/, ''));
      if (!found) continue;
      const box = (sign.querySelector('g.notehead') ?? sign).getBoundingClientRect();
      const distance = Math.hypot(Math.max(0, box.left - x, x - box.right), Math.max(0, box.top - y, y - box.bottom));
      if (distance < least) [best, least] = [found, distance];
    }
    return best;
  }

  function barUnder(x: number, y: number): number | null {
    for (const measure of page.querySelectorAll('g.measure')) {
      const box = measure.getBoundingClientRect();
      if (x >= box.left && x <= box.right && y >= box.top - 30 && y <= box.bottom + 30) return Number(/^m(\d+)$/.exec(measure.id)?.[1]);
    }
    return null;
  }

  /** A click at a height of the staff says the pitch of the sound at hand; on a note it chooses that; elsewhere the bar. */
  function click({ clientX: x, clientY: y, shiftKey }: MouseEvent): void {
    page.focus({ preventScroll: true });
    const bar = barUnder(x, y);
    const { place } = writing;
    const under = placeUnder(x, y);
    const waiting = writing.stage === 'pitches' && writing.sound?.open;
    if (under && !(waiting && under.bar === place.bar && under.at === place.at && under.lane === place.lane)) {
      writing.goTo(under);
      if (writing.stage === 'signs') writing.place = under;
      return;
    }
    if (bar === null) return;
    if (waiting && bar === place.bar) return sayHeight(y, shiftKey);
    writing.goTo({ bar, lane: place.lane, at: 0 });
  }

  function sayHeight(y: number, chord: boolean): void {
    const { bar, lane } = writing.place;
    const { staff } = writing.written.lanes[lane];
    const lines = [...page.querySelectorAll(`[id="m${bar}"] > g.staff`)][staff - 1]?.querySelectorAll(':scope > path');
    if (!lines?.length) return;
    const heights = [...lines].map((l) => l.getBoundingClientRect()).map((b) => b.top + b.height / 2);
    const [top, bottom] = [Math.min(...heights), Math.max(...heights)];
    const middle = middleOf(writing.written.head.clefs[staff - 1]);
    const up = Math.round(((top + bottom) / 2 - y) / ((bottom - top) / 8));
    const plain = atStaffStep(staffStep(middle) + up, 0);
    writing.setPitch({ ...plain, alter: keyAlter(keyAt(writing.written, bar), plain.step) }, chord);
  }

  function key(event: KeyboardEvent): void {
    if (event.target !== page) return;
    if (writing.key(event)) event.preventDefault();
  }

  /** The bar at hand stays in view. */
  $effect(() => {
    const { bar } = writing.place;
    const chunk = chunks.find((c) => bar >= c.from && bar < c.to);
    page.querySelector(`.system[data-from="${chunk?.from}"]`)?.scrollIntoView({ block: 'nearest' });
  });

  export function focus(): void {
    page.focus({ preventScroll: true });
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (the page is one widget: it is written by keys or pointer) -->
<div
  class="written"
  bind:this={page}
  bind:clientWidth={width}
  onclick={click}
  onkeydown={key}
  tabindex="0"
  role="application"
  aria-roledescription="score that is being written"
  aria-label="{writing.barName}, {writing.stage}"
  data-testid="written"
>
  {#each chunks as chunk (chunk.from)}
    <SystemView
      {engraver}
      {chunk}
      options={{ line, size: 1, sounding: false, version: versionOf(chunk.from, chunk.to) }}
      markings={[]}
      rows={[]}
      {selection}
      noteClasses={classes}
      reserve={110 * chunk.systems.length}
    />
  {/each}
</div>

<style>
  .written {
    min-height: 100%;
    cursor: text;
  }

  .written:focus-visible {
    outline-offset: -2px;
  }

  .written :global(g.unsaid) {
    color: var(--muted);
    fill: var(--muted);
    opacity: 0.5;
  }

  .written :global(g.here) {
    color: var(--edition);
    fill: var(--edition);
    opacity: 1;
  }
</style>
