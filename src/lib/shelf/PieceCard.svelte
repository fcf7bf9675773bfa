<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { ROOM_KEYS, roomAddress, ROOMS } from '$lib/rooms';

  interface Props {
    piece: { id: number; title: string; composer: string; instrument: string; bars: number };
    onremove: () => void;
  }
  const { piece, onremove }: Props = $props();
</script>

<li data-testid="piece">
  <div class="head">
    <a href={roomAddress(piece.id, 'reading')}>
      <h2>{piece.title}</h2>
      <p>{piece.composer || 'composer not given'}</p>
      <p class="quiet">{[piece.instrument, `${piece.bars} bars`].filter(Boolean).join(' · ')}</p>
    </a>
    <Button size="small" kind="ghost" on:click={onremove}>Take off</Button>
  </div>
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
    padding: 1rem 0.6rem 0.75rem 1.1rem;
  }

  .head a {
    color: inherit;
    text-decoration: none;
    overflow-wrap: anywhere;
  }

  .head a:hover h2 {
    color: var(--edition);
  }

  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.7rem;
    padding: 0.5rem 1.1rem;
    border-top: 1px solid var(--line);
    font-size: 0.88rem;
  }
</style>
