<script lang="ts">
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import type { Part, Score } from '$core/score/model';
  import { INSTRUMENTS, UNKNOWN_INSTRUMENT, type InstrumentKey } from '$core/style/instruments/index';
  import { instrumentOf } from '$core/style/instruments/instrument-of';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** What each part is played on, as it was recognised; the teacher may say otherwise. */
  const { workspace, score }: { workspace: Workspace; score: Score } = $props();

  const chosen = $derived(workspace.reading.instruments);
  const byName = [...INSTRUMENTS].sort((a, b) => a.name.localeCompare(b.name));

  const recognised = (part: Part): string => {
    const instrument = instrumentOf(score, part);
    return instrument === UNKNOWN_INSTRUMENT ? 'not recognised' : `${instrument.name} (recognised)`;
  };
  const choose = (part: number, key: string): void =>
    workspace.act({ type: 'set-instrument', part, instrument: key ? (key as InstrumentKey) : null });
</script>

{#each score.parts as part (part.index)}
  <Choice
    label="{part.name || `Part ${part.index + 1}`} is played on"
    value={chosen[part.index] ?? ''}
    onchange={(key) => choose(part.index, key)}
    data-testid="instrument"
  >
    <SelectItem value="" text={recognised(part)} />
    {#each byName as { key, name } (key)}<SelectItem value={key} text={name} />{/each}
  </Choice>
{/each}
