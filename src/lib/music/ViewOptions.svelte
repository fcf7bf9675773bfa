<script lang="ts">
  import Choice from '$lib/controls/Choice.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { isRenumberable } from '$core/score/numbering';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const parts = $derived(workspace.score?.parts ?? []);
  const renumberable = $derived(workspace.reading.numbering === 'counted' || (workspace.score !== null && isRenumberable(workspace.score)));
</script>

{#if parts.length > 1}
  <Choice
    label="For"
    value={workspace.reading.part}
    onchange={(value) => workspace.act({ type: 'set-part', part: Number(value) })}
    data-testid="part"
    >{#each parts as part (part.index)}<SelectItem value={part.index} text={part.name || `Part ${part.index + 1}`} />{/each}</Choice
  >
  <Tick
    label="others shown"
    title="The other parts give harmony and context"
    checked={workspace.othersShown}
    onchange={(checked) => workspace.showOthers(checked)}
  />
{/if}
{#if workspace.transposes}
  <Choice label="Pitch" value={workspace.pitch} onchange={(value) => workspace.showAt(value as 'written' | 'sounding')} data-testid="pitch"
    ><SelectItem value="written" text="as written" /><SelectItem value="sounding" text="as it sounds" /></Choice
  >
{/if}
{#if renumberable}
  <Choice
    label="Bar numbers"
    value={workspace.reading.numbering}
    onchange={(value) => workspace.act({ type: 'set-numbering', numbering: value as 'printed' | 'counted' })}
    data-testid="numbering"><SelectItem value="printed" text="as printed" /><SelectItem value="counted" text="counted" /></Choice
  >
{/if}
