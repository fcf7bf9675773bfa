<script lang="ts">
  import type { RowEntry } from '$core/edition/mei';
  import type { SetChunk } from '$core/edition/systems';
  import type { Marking } from '$core/markings/marking';
  import type { Ossia } from '$core/reading/ossia';
  import type { EngraveOptions } from '../workers/engraver-service';
  import type { Engraver } from './engraver';

  interface Props {
    engraver: Engraver;
    chunk: SetChunk;
    options: EngraveOptions;
    markings: Marking[];
    rows: RowEntry[];
    ossias?: Ossia[];
    /** Selected measures, both included; null draws none. */
    selection?: { from: number; to: number } | null;
    openMarking?: string | null;
    /** CSS classes of notes by id, for voices, pillars and chosen notes. */
    noteClasses?: ReadonlyMap<string, string>;
    /** Engraved at once, whether it is in view or not (for print). */
    eager?: boolean;
    /** Height that is held free until the engraving is there. */
    reserve: number;
    ondrawn?: () => void;
  }
  const {
    engraver,
    chunk,
    options,
    markings,
    rows,
    ossias = [],
    selection = null,
    openMarking = null,
    noteClasses,
    eager = false,
    reserve,
    ondrawn
  }: Props = $props();

  /** Room at the end of the line, in the engraving's units; beyond the page's own margin. */
  const EDGE = 500;

  let host: HTMLDivElement;
  let near = $state(false);
  let drawn = $state(0);
  let fault = $state<string | null>(null);
  const wanted = $derived(JSON.stringify([chunk, options, markings, rows, ossias]));
  let shown = $state('');

  $effect(() => {
    if (eager) return;
    const observer = new IntersectionObserver((entries) => (near = entries.some((e) => e.isIntersecting)), { rootMargin: '400px' });
    observer.observe(host);
    return () => observer.disconnect();
  });

  $effect(() => {
    const now = wanted;
    if ((!near && !eager) || now === shown) return;
    let current = true;
    const urgency = Math.abs(host.getBoundingClientRect().top);
    engraver.engrave({ chunk, options, markings, rows, ossias }, urgency).then(
      (svg) => {
        if (!current) return;
        shown = now;
        // eslint-disable-next-line svelte/no-dom-manipulating -- the host is empty for Svelte; the picture is the engraver's
        host.innerHTML = svg;
        keepWordsInside();
        fault = null;
        drawn++;
        ondrawn?.();
      },
      (error: Error) => {
        if (current) fault = error.message;
      }
    );
    return () => (current = false);
  });

  /** Words near the end of a line would run over its edge: they are moved back so that they end with the line. */
  function keepWordsInside(): void {
    const edge = host.querySelector<SVGSVGElement>('svg svg')?.viewBox.baseVal.width ?? 0;
    if (!edge) return;
    for (const word of host.querySelectorAll<SVGGElement>('g.dir, g.tempo')) {
      const box = word.getBBox();
      const over = box.x + box.width - edge + EDGE;
      if (over > 0) word.setAttribute('transform', `translate(${-over}, 0)`);
    }
  }

  /** Notes take their classes; what stood before is taken away. */
  $effect(() => {
    void drawn;
    const classes = noteClasses;
    for (const old of host.querySelectorAll('g[data-class]')) {
      old.classList.remove(...(old.getAttribute('data-class') ?? '').split(' ').filter(Boolean));
      old.removeAttribute('data-class');
    }
    if (!classes?.size) return;
    for (const note of host.querySelectorAll('g.note, g.rest, g.mRest')) {
      const name = classes.get(note.id);
      if (!name) continue;
      note.classList.add(...name.split(' '));
      note.setAttribute('data-class', name);
    }
  });

  /** A tint behind the selected bars, and a frame around the marking that the brief has open. */
  $effect(() => {
    void drawn;
    const chosen = selection;
    const marked = openMarking;
    for (const old of host.querySelectorAll('.tint, .frame')) old.remove();
    if (chosen) {
      for (let k = Math.max(chosen.from, chunk.from); k <= Math.min(chosen.to, chunk.to - 1); k++)
        tint(host.querySelector<SVGGElement>(`g.measure[id="m${k}"]`));
    }
    const sign = marked ? host.querySelector<SVGGElement>(`[id="${CSS.escape(marked)}"]`) : null;
    if (sign) frame(sign, 'frame', 60);
  });

  function tint(measure: SVGGElement | null): void {
    if (!measure) return;
    const staves = [...measure.querySelectorAll<SVGGElement>(':scope > g.staff, :scope > g.ossia > g.staff')].map((s) => s.getBBox());
    if (!staves.length) return;
    const x = Math.min(...staves.map((b) => b.x));
    const y = Math.min(...staves.map((b) => b.y));
    const right = Math.max(...staves.map((b) => b.x + b.width));
    const bottom = Math.max(...staves.map((b) => b.y + b.height));
    rectangle(measure, 'tint', x, y - 120, right - x, bottom - y + 240);
  }

  function frame(sign: SVGGElement, name: string, margin: number): void {
    const box = sign.getBBox();
    rectangle(sign, name, box.x - margin, box.y - margin, box.width + 2 * margin, box.height + 2 * margin);
  }

  function rectangle(parent: SVGGElement, name: string, x: number, y: number, width: number, height: number): void {
    const rect = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    rect.setAttribute('class', name);
    for (const [key, value] of Object.entries({ x, y, width, height, rx: 40 })) rect.setAttribute(key, String(value));
    parent.prepend(rect);
  }
</script>

{#if fault}<p class="quiet">These bars could not be engraved: {fault}</p>{/if}
<div
  class="system"
  bind:this={host}
  style:min-height={drawn ? null : `${reserve}px`}
  data-from={chunk.from}
  data-drawn={drawn > 0}
  aria-busy={(near || eager) && shown !== wanted}
></div>

<style>
  .system :global(svg) {
    display: block;
    width: 100%;
    height: auto;
    color: var(--ink);
    fill: var(--ink);
    break-inside: avoid;
  }

  .system :global(svg text) {
    /* The engraver reckons with Times; this face has the same widths. */
    font-family: Tinos, 'Times New Roman', serif;
  }

  .system :global(.editorial) {
    pointer-events: bounding-box;
    color: var(--edition);
    fill: var(--edition);
    stroke-width: inherit;
  }

  .system :global(.editorial *) {
    color: var(--edition);
  }

  .system :global(.analysis) {
    fill: var(--tone-1);
    color: var(--tone-1);
  }

  .system :global(.analysis.keys) {
    fill: var(--tone-3);
    color: var(--tone-3);
  }

  .system :global(g.note.connecting) {
    opacity: 0.42;
  }

  .system :global(g.note.voice-upper) {
    color: var(--tone-1);
    fill: var(--tone-1);
  }

  .system :global(g.note.voice-middle) {
    color: var(--tone-2);
    fill: var(--tone-2);
  }

  .system :global(g.note.voice-lower) {
    color: var(--tone-3);
    fill: var(--tone-3);
  }

  .system :global(g.note.differs),
  .system :global(g.note.like) {
    color: var(--edition);
    fill: var(--edition);
  }

  .system :global(g.note.chosen) {
    color: var(--edition);
    fill: var(--edition);
    stroke: var(--edition);
    stroke-width: 30;
  }

  .system :global(.analysis.phrases) {
    fill: var(--tone-2);
    color: var(--tone-2);
  }

  .system :global(.analysis.count),
  .system :global(.analysis.rhythm) {
    fill: var(--muted);
    color: var(--muted);
  }

  .system :global(rect.tint) {
    fill: var(--selected);
    stroke: none;
  }

  .system :global(rect.frame) {
    fill: none;
    stroke: var(--edition);
    stroke-width: 14;
  }

  @media print {
    .system {
      break-inside: avoid;
    }

    .system :global(svg),
    .system :global(.editorial),
    .system :global(.editorial *) {
      color: #000;
      fill: #000;
    }
  }
</style>
