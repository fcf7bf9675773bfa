<script lang="ts">
  import { cmp } from '$core/score/fraction';
  import { sureness } from '$core/analysis/confidence';
  import { intervalWords, parallelWords } from '$core/analysis/words';
  import { CADENCE_NAMES } from '$core/analysis/facts';
  import type { Workspace } from '../workspace/workspace.svelte';
  import type { Scale } from './scale.svelte';

  const { workspace, scale }: { workspace: Workspace; scale: Scale } = $props();

  const PHRASES = 35;
  /** Parallel places to which the selected bars are tied, at most. */
  const MOST_LINKS = 8;

  /** From the selected bars to their parallel places. */
  const linked = $derived(
    workspace.score
      ? workspace.facts.parallels
          .filter((p) => workspace.selection.holds(p.a.start, p.a.end) || workspace.selection.holds(p.b.start, p.b.end))
          .sort((a, b) => b.weight - a.weight)
          .slice(0, MOST_LINKS)
      : []
  );
  const keyAt = (time: { n: number; d: number }): string =>
    workspace.facts.keys.find((k) => cmp(k.start, time) <= 0 && cmp(time, k.end) < 0)?.name ?? 'no key';
  const differing = (count: number): string => (count === 0 ? 'nothing differs' : count === 1 ? 'one difference' : `${count} differences`);
</script>

{#each linked as p, k (k)}
  {@const [a, b] = [scale.x(p.a.start), scale.x(p.b.start)]}
  <path class="link" d="M{a},45 C{a},24 {b},24 {b},45"
    ><title>The same music, {parallelWords(p)}: {differing(p.differences.length)}</title></path
  >
{/each}
{#each workspace.facts.sections.filter((s) => scale.sees(s.start, s.end)) as section (section.id)}
  {@const [a, b] = [scale.x(section.start) + 1, scale.x(section.end) - 2]}
  <path class="section" d="M{a},{PHRASES - 14} V3 H{b} V{PHRASES - 14}"
    ><title>Section {section.label.replace(/'/g, '′')}, {section.opens}; set up by {section.setUp}</title></path
  >
  <text class="section-name" x={Math.max(0, a) + 4} y="13">{section.label.replace(/'/g, '′')}</text>
{/each}
{#each workspace.study.details?.groups.filter((g) => g.phrases.length > 1 && scale.sees(g.start, g.end)) ?? [] as group, k (k)}
  {@const [a, b] = [scale.x(group.start) + 1, scale.x(group.end) - 2]}
  <path class="group" d="M{a},{PHRASES} C{a},8 {b},8 {b},{PHRASES}"><title>{group.kind}: {group.evidence}</title></path>
{/each}
{#each workspace.facts.phrases.filter((p) => scale.sees(p.start, p.end)) as phrase (phrase.id)}
  {@const [a, b] = [scale.x(phrase.start) + 1, scale.x(phrase.end) - 2]}
  <path class="phrase" d="M{a},{PHRASES} C{a},18 {b},18 {b},{PHRASES}"
    ><title>Phrase, {sureness(phrase.confidence)}: {phrase.evidence}</title></path
  >
{/each}
{#each workspace.facts.cadences.filter((c) => scale.sees(c.start)) as cadence (cadence.id)}
  {@const says = `${CADENCE_NAMES[cadence.type]} in ${keyAt(cadence.start)}`}
  <g transform="translate({scale.x(cadence.start)},{PHRASES})"><path class="cadence" d="M0,-3 V4" /><title>{says}</title></g>
  {#if scale.cell > 16}<text class="cadence-name" text-anchor="end" x={scale.x(cadence.start) - 3} y={PHRASES - 1}
      >{cadence.type}<title>{says}</title></text
    >{/if}
{/each}
{#each workspace.facts.sequences.filter((s) => scale.sees(s.start, s.end)) as sequence (sequence.id)}
  {@const [a, b] = [scale.x(sequence.start), scale.x(sequence.end)]}
  <path
    class="sequence"
    d="M{a},43 {Array.from({ length: sequence.units }, (_, k) => `H${(a + ((b - a) * (k + 1)) / sequence.units - 2).toFixed(1)} m2,0`).join(
      ' '
    )}"
    ><title>Sequence, {sequence.units} units, each {intervalWords(sequence.step)}{sequence.kind ? `, ${sequence.kind}` : ''}</title></path
  >
{/each}
