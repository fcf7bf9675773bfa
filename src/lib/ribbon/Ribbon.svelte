<script lang="ts">
  import { cmp, fromNumber, toNumber, type Fraction } from '$core/score/fraction';
  import { sureness } from '$core/analysis/confidence';
  import { toldKey } from '$core/analysis/key-words';
  import { intervalWords, parallelWords } from '$core/analysis/words';
  import { tempoMarks } from '$core/score/tempo';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const HEIGHT = 142;
  const ROWS = { sections: 13, phrases: 40, keys: 56, plan: [76, 110], bars: [114, 138] };
  let width = $state(0);

  const score = $derived(workspace.score);
  const cell = $derived(score ? width / score.measures.length : 0);

  /** Horizontal place of a time: bars are equally wide. */
  function x(time: Fraction): number {
    const measure = workspace.measureOf(time);
    if (!measure) return 0;
    const inside = (toNumber(time) - toNumber(measure.start)) / Math.max(1e-9, toNumber(measure.length));
    return (measure.index + Math.max(0, Math.min(1, inside))) * cell;
  }

  /** The same for a time in quarters as a number. */
  const xAt = (quarters: number): number => x(fromNumber(quarters));

  const levelY = (step: number): number => ROWS.plan[1] - ((step - 1) / 7) * (ROWS.plan[1] - ROWS.plan[0]);

  /** The dynamic plan as a line. */
  const dynamics = $derived(
    workspace.plan && cell ? workspace.plan.points.map((p) => `${xAt(p.time).toFixed(1)},${levelY(p.level).toFixed(1)}`).join(' ') : ''
  );

  /** Tempo in quarters a minute, as a stepped line between the slowest and the fastest mark. */
  const tempo = $derived.by(() => {
    if (!score || !cell) return { line: '', labels: [] as { x: number; text: string }[] };
    const given = tempoMarks(score);
    // Every part may carry the tempo; one line for one moment is enough.
    const marks = given
      .filter((m, k) => k === 0 || cmp(m.start, given[k - 1].start) !== 0)
      .map((m) => ({ at: m.start, value: (m.low + m.high) / 2 }));
    if (!marks.length) return { line: '', labels: [] };
    const low = Math.min(...marks.map((m) => m.value)) * 0.8;
    const high = Math.max(...marks.map((m) => m.value)) * 1.2;
    const y = (v: number) => ROWS.plan[1] - ((v - low) / (high - low)) * (ROWS.plan[1] - ROWS.plan[0]);
    const points: string[] = [];
    marks.forEach((m, k) => {
      points.push(`${x(m.at).toFixed(1)},${y(m.value).toFixed(1)}`);
      const end = marks[k + 1]?.at;
      points.push(`${(end ? x(end) : width).toFixed(1)},${y(m.value).toFixed(1)}`);
    });
    return { line: points.join(' '), labels: marks.map((m) => ({ x: x(m.at), text: `♩ ${Math.round(m.value)}` })) };
  });

  const openAt = $derived.by(() => {
    const bars = new Map<number, number>();
    for (const p of workspace.study.proposals) {
      if (workspace.decisionOf(p.key)) continue;
      const m = workspace.measureOf(p.marking.start);
      if (m) bars.set(m.index, (bars.get(m.index) ?? 0) + 1);
    }
    return bars;
  });

  /** From the selected bars to their parallel places. */
  const linked = $derived(
    score
      ? workspace.facts.parallels
          .filter((p) => workspace.selection.holds(p.a.start, p.a.end) || workspace.selection.holds(p.b.start, p.b.end))
          .sort((a, b) => b.weight - a.weight)
          .slice(0, 8)
          .map((p) => ({
            a: x(p.a.start),
            b: x(p.b.start),
            title: `Same music, ${parallelWords(p)}; ${p.differences.length} differences`
          }))
      : []
  );

  const markedAt = $derived(new Set(workspace.reading.markings.map((m) => workspace.measureOf(m.start)?.index)));
  const every = $derived(cell >= 26 ? 1 : cell >= 13 ? 2 : cell >= 6 ? 5 : cell >= 3 ? 10 : 25);

  function pick(event: PointerEvent): void {
    const target = event.currentTarget as SVGSVGElement;
    const index = Math.floor((event.clientX - target.getBoundingClientRect().left) / cell);
    workspace.selection.bar(index, event.shiftKey);
  }

  function key(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowLeft: -1, PageDown: 8, PageUp: -8 }[event.key];
    if (step === undefined) return;
    workspace.selection.step(step, event.shiftKey);
    event.preventDefault();
  }
</script>

<div class="ribbon" bind:clientWidth={width}>
  {#if score && cell}
    <svg
      {width}
      height={HEIGHT}
      viewBox="0 0 {width} {HEIGHT}"
      role="slider"
      tabindex="0"
      aria-label="The whole piece, a cell to a bar"
      aria-valuemin={1}
      aria-valuemax={score.measures.length}
      aria-valuenow={workspace.selection.from + 1}
      aria-valuetext={workspace.barName(score.measures[workspace.selection.from])}
      onpointerdown={pick}
      onkeydown={key}
    >
      <rect
        class="chosen"
        x={workspace.selection.from * cell}
        y="0"
        width={(workspace.selection.to - workspace.selection.from + 1) * cell}
        height={HEIGHT}
      />
      {#if workspace.player.measure !== null}
        <rect class="playing" x={workspace.player.measure * cell} y="0" width={Math.max(2, cell)} height={HEIGHT} />
      {/if}
      {#each linked as link, k (k)}
        <path class="link" d="M{link.a},{ROWS.bars[0] - 3} C{link.a},{ROWS.plan[0]} {link.b},{ROWS.plan[0]} {link.b},{ROWS.bars[0] - 3}"
          ><title>{link.title}</title></path
        >
      {/each}
      {#each workspace.facts.sections as section (section.id)}
        {@const a = x(section.start) + 1}
        {@const b = x(section.end) - 2}
        <path class="section" d="M{a},{ROWS.phrases - 10} V4 H{b} V{ROWS.phrases - 10}"
          ><title>Section {section.label.replace(/'/g, '′')}, {section.opens}; set up by {section.setUp}</title></path
        >
        <text class="section-name" x={a + 4} y={ROWS.sections + 1}>{section.label.replace(/'/g, '′')}</text>
      {/each}
      {#each workspace.facts.sequences as sequence (sequence.id)}
        {@const a = x(sequence.start)}
        {@const b = x(sequence.end)}
        <path
          class="sequence"
          d="M{a},{ROWS.keys + 7} {Array.from(
            { length: sequence.units },
            (_, k) => `H${(a + ((b - a) * (k + 1)) / sequence.units - 2).toFixed(1)} m2,0`
          ).join(' ')}"
          ><title>Sequence, {sequence.units} units, each {intervalWords(sequence.step)}{sequence.kind ? `, ${sequence.kind}` : ''}</title
          ></path
        >
      {/each}
      {#each workspace.study.details?.groups.filter((g) => g.phrases.length > 1) ?? [] as group, k (k)}
        {@const a = x(group.start) + 1}
        {@const b = x(group.end) - 2}
        <path class="group" d="M{a},{ROWS.phrases} C{a},9 {b},9 {b},{ROWS.phrases}"><title>{group.kind}: {group.evidence}</title></path>
      {/each}
      {#each workspace.facts.phrases as phrase (phrase.id)}
        {@const a = x(phrase.start) + 1}
        {@const b = x(phrase.end) - 2}
        <path class="phrase" d="M{a},{ROWS.phrases} C{a},20 {b},20 {b},{ROWS.phrases}"
          ><title>Phrase, {sureness(phrase.confidence)}: {phrase.evidence}</title></path
        >
      {/each}
      {#each workspace.facts.keys as area, k (area.id)}
        {@const a = x(area.start)}
        {@const b = x(area.end)}
        <rect class="key" class:other={k % 2 === 1} x={a} y={ROWS.keys - 12} width={Math.max(0, b - a - 1)} height="16"
          ><title>{toldKey(area)}: {area.evidence}</title></rect
        >
        {#if b - a > 24}<text class="key-name" x={a + 4} y={ROWS.keys}
            >{b - a > 64
              ? toldKey(area)
              : area.tonality === 'none'
                ? '–'
                : area.name.replace(' major', '').replace(/^(\S+) minor$/, (_, t: string) => t.toLowerCase())}{area.pinned
              ? ' ●'
              : ''}</text
          >{/if}
      {/each}
      {#each workspace.facts.cadences as cadence (cadence.id)}
        <g transform="translate({x(cadence.start)},{ROWS.phrases})"
          ><path class="cadence" d="M0,-3 V4" /><title
            >{cadence.type} in {workspace.facts.keys.find((k) => cmp(k.start, cadence.start) <= 0 && cmp(cadence.start, k.end) < 0)
              ?.name}</title
          ></g
        >
        {#if cell > 16}<text class="cadence-name" text-anchor="end" x={x(cadence.start) - 3} y={ROWS.phrases - 1}>{cadence.type}</text>{/if}
      {/each}
      {#if tempo.line}<polyline class="tempo" points={tempo.line} />{/if}
      {#each tempo.labels as label, k (k)}<text class="tempo-name" x={label.x + 3} y={ROWS.plan[0] + 2}>{label.text}</text>{/each}
      <polyline class="dynamics" points={dynamics} />
      <text class="axis" x="2" y={ROWS.plan[1]}>soft</text>
      {#each score.measures as measure (measure.index)}
        {@const open = openAt.get(measure.index) ?? 0}
        <rect class="bar" x={measure.index * cell} y={ROWS.bars[0]} width={cell} height={ROWS.bars[1] - ROWS.bars[0]} />
        {#if measure.index % every === 0 && !measure.implicit}<text class="number" x={measure.index * cell + 2} y={ROWS.bars[1] - 3}
            >{measure.number}</text
          >{/if}
        {#if open}<circle class="open" cx={(measure.index + 0.5) * cell} cy={ROWS.bars[0] + 6} r={Math.min(3.2, cell / 3)}
            ><title>{open} open {open === 1 ? 'proposal' : 'proposals'}</title></circle
          >{/if}
        {#if markedAt.has(measure.index)}<rect
            class="marked"
            x={measure.index * cell + cell * 0.2}
            y={ROWS.bars[0] - 2}
            width={cell * 0.6}
            height="2.5"
          />{/if}
      {/each}
    </svg>
  {/if}
</div>

<style>
  .ribbon {
    height: 142px;
    border-bottom: 1px solid var(--line);
    background: var(--raised);
    overflow: hidden;
  }

  svg {
    display: block;
    cursor: pointer;
    touch-action: manipulation;
  }

  .chosen {
    fill: var(--selected);
  }

  .playing {
    fill: var(--tone-1);
    opacity: 0.25;
  }

  .group {
    fill: none;
    stroke: var(--muted);
    stroke-dasharray: 3 3;
  }

  .phrase {
    fill: none;
    stroke: var(--muted);
    stroke-width: 1.2;
  }

  .section {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }

  .section-name {
    fill: var(--ink);
    font-weight: 600;
  }

  .sequence {
    fill: none;
    stroke: var(--tone-2);
    stroke-width: 2.5;
  }

  .link {
    fill: none;
    stroke: var(--tone-2);
    stroke-width: 1.2;
    stroke-dasharray: 3 2;
  }

  .key {
    fill: var(--tone-1-soft);
  }

  .key.other {
    fill: var(--tone-2-soft);
  }

  text {
    font: 11px var(--text-face);
    fill: var(--muted);
    pointer-events: none;
  }

  .key-name {
    fill: var(--ink);
  }

  .cadence {
    stroke: var(--ink);
    stroke-width: 1.5;
  }

  .cadence-name {
    font-size: 9.5px;
  }

  .dynamics {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }

  .tempo {
    fill: none;
    stroke: var(--tone-3);
    stroke-width: 1.2;
    stroke-dasharray: 5 3;
  }

  .tempo-name {
    fill: var(--tone-3);
  }

  .bar {
    fill: none;
    stroke: var(--line);
  }

  .open {
    fill: none;
    stroke: var(--edition);
    stroke-width: 1.4;
  }

  .marked {
    fill: var(--edition);
  }
</style>
