<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Field from '$lib/controls/Field.svelte';
  import Menu from '$lib/frame/Menu.svelte';
  import { ROOM_KEYS, roomAddress, ROOMS } from '$lib/rooms';
  import type { ShelfPiece } from '$lib/shapes';
  import { nextOf, periodName, whenSaid } from './find';

  interface Props {
    piece: ShelfPiece;
    /** Groups that there are. */
    groups: string[];
    /** Seconds since 1970. */
    now: number;
    onremove: () => void;
    ongroup: (group: string | null) => void;
  }
  const { piece, groups, now, onremove, ongroup }: Props = $props();

  const next = $derived(nextOf(piece));
  const bars = $derived(piece.bars === 1 ? 'one bar' : `${piece.bars} bars`);
  let group = $state('');
</script>

<li data-testid="piece">
  <div class="head">
    <a href={roomAddress(piece.id, 'reading')}>
      <h2>{piece.title}</h2>
      <p>{piece.composer || 'composer not given'}</p>
      <p class="quiet">{[piece.instrument, bars, periodName(piece.period)].filter(Boolean).join(' · ')}</p>
    </a>
    {#key piece.group}
      <Menu label="more" left says="What can be done with “{piece.title}”">
        <form onsubmit={(e) => (e.preventDefault(), ongroup(group.trim() || null))}>
          <Field label="Group" bind:value={group} maxlength="80" list="groups" placeholder={piece.group ?? 'a group of your own'} />
          <Act type="submit">Put it there</Act>
        </form>
        {#if piece.group}<Act onclick={() => ongroup(null)}>Out of “{piece.group}”</Act>{/if}
        {#each groups.filter((g) => g !== piece.group).slice(0, 5) as g (g)}<Act onclick={() => ongroup(g)}>Into “{g}”</Act>{/each}
        <Act onclick={onremove}>Take off the shelf</Act>
      </Menu>
    {/key}
  </div>
  <p class="where">
    {#if piece.group}<span class="group">{piece.group}</span>{/if}
    <a href={roomAddress(piece.id, next.room)}>Next: {next.says}</a>
    <span class="quiet">{piece.openedAt ? `opened ${whenSaid(piece.openedAt, now)}` : `added ${whenSaid(piece.createdAt, now)}`}</span>
  </p>
  <nav aria-label="Rooms of {piece.title}">
    {#each ROOM_KEYS as room (room)}<a href={roomAddress(piece.id, room)} title={ROOMS[room].says}>{ROOMS[room].name}</a>{/each}
  </nav>
</li>

<style>
  li {
    border: 1px solid var(--line);
    background: var(--raised);
    border-radius: 3px;
    display: flex;
    flex-direction: column;
    min-width: 0;
  }

  .head {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: start;
    gap: 0.5rem;
    padding: 0.8rem 0.9rem 0.4rem 1.1rem;
  }

  .head > a {
    color: inherit;
    text-decoration: none;
    overflow-wrap: anywhere;
  }

  .head > a:hover h2 {
    color: var(--edition);
  }

  .where {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.8rem;
    padding: 0 1.1rem 0.5rem;
    font-size: 0.88rem;
  }

  .group {
    border: 1px solid var(--line);
    border-radius: 2px;
    padding: 0 0.3rem;
  }

  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.36rem;
    padding: 0.4rem 0.5rem 0.4rem 1.1rem;
    border-top: 1px solid var(--line);
    font-size: 0.8rem;
  }
</style>
