<script lang="ts">
  import { untrack } from 'svelte';
  import { InlineNotification } from 'carbon-components-svelte';
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import PlayerForm from '$lib/players/PlayerForm.svelte';
  import { Players } from '$lib/players/players.svelte';
  import { undoKey } from '$lib/undo.svelte';

  const { data } = $props();

  const players = new Players(untrack(() => data.players));
  let name = $state('');

  function add(): void {
    if (!name.trim()) return;
    players.add(name.trim());
    name = '';
  }
</script>

<svelte:window onkeydown={(event) => undoKey(event, players)} />
<svelte:head><title>Players · Nuvelo</title></svelte:head>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, and must do so from the keyboard) -->
<div class="players" tabindex="0" role="region" aria-label="Players">
  <header>
    <h1>Players</h1>
    <Act onclick={() => players.undo()} disabled={!players.canUndo}>Undo</Act>
    <Act onclick={() => players.redo()} disabled={!players.canRedo}>Redo</Act>
  </header>
  <p class="quiet">
    Those whom you make readings for. A reading that names its player takes breath, hand, range and fingerings from here; what is left empty
    is as usual on the instrument. Every change is kept at once.
  </p>
  {#if players.fault}<InlineNotification
      kind="error"
      lowContrast
      title="Not kept:"
      subtitle={players.fault}
      on:close={() => (players.fault = null)}
    />{/if}
  {#each players.list as player (player.key)}
    <PlayerForm {player} change={(change) => players.change(player.key, change)} remove={() => players.remove(player.key)} />
  {:else}
    <p class="empty">Nobody yet. Give a name, and say below it what is particular.</p>
  {/each}
  <form
    onsubmit={(event) => {
      event.preventDefault();
      add();
    }}
  >
    <Field label="Another player" bind:value={name} maxlength="80" placeholder="a name" />
    <Act type="submit" disabled={!name.trim()}>Add</Act>
  </form>
</div>

<style>
  .players {
    height: 100%;
    overflow-y: auto;
    padding: 1.5rem max(1rem, calc((100% - 60rem) / 2));
    box-sizing: border-box;
  }

  header,
  form {
    display: flex;
    align-items: baseline;
    gap: 1rem;
  }

  form {
    border-top: 1px solid var(--line);
    padding-top: 1rem;
    align-items: center;
  }

  header + p {
    padding-bottom: 0.8rem;
  }

  .empty {
    padding: 2rem 0;
  }
</style>
