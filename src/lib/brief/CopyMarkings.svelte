<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { nanoid } from 'nanoid';
  import { copiesAt, samePlaces, type SamePlace } from '$core/reading/copies';
  import { intervalWords } from '$core/analysis/words';
  import { cmp } from '$core/score/fraction';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Only the nearest kin are offered. */
  const MOST = 4;
  let manner = $state('0');

  const range = $derived(workspace.selection.stretch());
  const own = $derived(workspace.reading.markings.filter((m) => workspace.selection.holds(m.start)));
  const places = $derived(
    own.length && workspace.score ? samePlaces(workspace.score, workspace.facts, range.from, range.to).slice(0, MOST) : []
  );
  function copy(place: SamePlace): void {
    const there = workspace.reading.markings.filter((m) => !own.includes(m));
    const copies = copiesAt(workspace.score!, own, place, Number(manner), () => `mark-${nanoid()}`).filter(
      (c) => !there.some((m) => m.kind === c.kind && m.value === c.value && cmp(m.start, c.start) === 0)
    );
    if (!copies.length) {
      workspace.notice = `Nothing was copied: ${place.name} has these markings already, or its notes have no partners.`;
      return;
    }
    workspace.act({
      type: 'together',
      what: `copying ${copies.length} ${copies.length === 1 ? 'marking' : 'markings'} to ${place.name}`,
      commands: copies.map((marking) => ({ type: 'add-marking' as const, marking }))
    });
    workspace.notice = `${copies.length} ${copies.length === 1 ? 'marking was' : 'markings were'} copied to ${place.name}.`;
  }
</script>

{#if places.length}
  <div class="choices" data-testid="copies">
    <Choice label="Copy to the same music" bind:value={manner}
      ><SelectItem value="0" text="the same" /><SelectItem value="-1" text="a step softer" /><SelectItem
        value="1"
        text="a step louder"
      /></Choice
    >
    {#each places as place (place.parallel.id + place.backward)}
      <Act onclick={() => copy(place)}
        >{place.name}{place.parallel.transposition === 'P1' ? '' : ` (${intervalWords(place.parallel.transposition)})`}</Act
      >
    {/each}
  </div>
{/if}
