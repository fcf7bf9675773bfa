<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import Choice from '../controls/Choice.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** Whom the reading is for: breath, hand and fingerings are that player's. */
  const { workspace }: { workspace: Workspace } = $props();

  const named = $derived(workspace.reading.player);
  const { players } = $derived(workspace.data);

  function choose(key: string): void {
    const player = players.find((p) => p.key === key);
    workspace.act({ type: 'set-player', player: player ? { key, name: player.name } : null });
  }
</script>

{#if players.length || named}
  <Choice label="It is for" value={named?.key ?? ''} onchange={choose} data-testid="for-whom">
    <SelectItem value="" text="nobody in particular" />
    {#each players as { key, name } (key)}<SelectItem value={key} text={name} />{/each}
    {#if named && !workspace.playedBy}<SelectItem value={named.key} text="{named.name} (not among your players)" />{/if}
  </Choice>
{:else}
  <a href="/players">Tell who plays it</a>
{/if}
