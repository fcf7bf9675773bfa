<script lang="ts">
  import { isRenumberable } from '$core/score/numbering';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const parts = $derived(workspace.score?.parts ?? []);
  const renumberable = $derived(workspace.reading.numbering === 'counted' || (workspace.score !== null && isRenumberable(workspace.score)));
</script>

{#if parts.length > 1}
  <label
    >For <select
      value={workspace.reading.part}
      onchange={(e) => workspace.act({ type: 'set-part', part: Number(e.currentTarget.value) })}
      data-testid="part"
      >{#each parts as part (part.index)}<option value={part.index}>{part.name || `Part ${part.index + 1}`}</option>{/each}</select
    ></label
  >
  <label title="The other parts give harmony and context"
    ><input type="checkbox" checked={workspace.othersShown} onchange={(e) => workspace.showOthers(e.currentTarget.checked)} /> others shown</label
  >
{/if}
{#if workspace.transposes}
  <label
    >Pitch <select
      value={workspace.pitch}
      onchange={(e) => workspace.showAt(e.currentTarget.value as 'written' | 'sounding')}
      data-testid="pitch"><option value="written">as written</option><option value="sounding">as it sounds</option></select
    ></label
  >
{/if}
{#if renumberable}
  <label
    >Bar numbers <select
      value={workspace.reading.numbering}
      onchange={(e) => workspace.act({ type: 'set-numbering', numbering: e.currentTarget.value as 'printed' | 'counted' })}
      data-testid="numbering"><option value="printed">as printed</option><option value="counted">counted</option></select
    ></label
  >
{/if}
