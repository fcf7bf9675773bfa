<script lang="ts">
  import { LIMITS } from '$core/style/limits';
  import { invalidate } from '$app/navigation';
  import { Button, InlineNotification, Modal } from 'carbon-components-svelte';
  import { api } from '$lib/api';
  import { sentenceOf } from '$lib/workspace/latest';

  const { data } = $props();

  let refused = $state<string | null>(null);
  let going = $state<(typeof data.pieces)[number] | null>(null);

  const day = (seconds: number): string => new Date(seconds * 1000).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
  const DAYS = LIMITS.binDays;

  async function carryOut(work: () => Promise<unknown>): Promise<void> {
    refused = null;
    try {
      await work();
    } catch (error) {
      refused = sentenceOf(error);
    }
    await invalidate('nuvelo:bin');
  }

  async function remove(): Promise<void> {
    if (!going) return;
    const { id, editions } = going;
    going = null;
    await carryOut(() => api.removeForGood(id, editions > 0));
  }
</script>

<div class="bin">
  <h1>Bin</h1>
  <p class="quiet">
    What is taken off the shelf lies here for {DAYS} days and can be taken back with everything in it. Pieces of which editions were frozen stay
    until you remove them yourself.
  </p>
  {#if refused}<InlineNotification kind="error" lowContrast title="" subtitle={refused} on:close={() => (refused = null)} />{/if}
  {#if data.pieces.length}
    <ul>
      {#each data.pieces as piece (piece.id)}
        <li data-testid="binned">
          <div>
            <strong>{piece.title}</strong>
            <span class="quiet">{piece.composer}</span>
            <p class="quiet">
              Taken off on {day(piece.removedAt)}.
              {#if piece.editions}{piece.editions === 1 ? 'An edition was' : `${piece.editions} editions were`} frozen of it.
              {:else}It is removed for good on {day(piece.removedAt + DAYS * 86_400)}.{/if}
            </p>
          </div>
          <Button size="small" kind="tertiary" on:click={() => void carryOut(() => api.takeBack(piece.id))}>Put back on the shelf</Button>
          <Button size="small" kind="ghost" on:click={() => (going = piece)}>Remove for good</Button>
        </li>
      {/each}
    </ul>
  {:else}
    <p class="empty">The bin is empty.</p>
  {/if}
</div>

<Modal
  danger
  size="sm"
  open={going !== null}
  modalHeading="Remove “{going?.title}” for good?"
  primaryButtonText="Remove it"
  secondaryButtonText="Leave it"
  on:click:button--secondary={() => (going = null)}
  on:close={() => (going = null)}
  on:submit={remove}
>
  <p>
    Its readings{going?.editions ? ` and ${going.editions === 1 ? 'its frozen edition' : `its ${going.editions} frozen editions`}` : ''} go with
    it and cannot be brought back, except from a backup.
  </p>
</Modal>

<style>
  .bin {
    height: 100%;
    overflow-y: auto;
    padding: 1.5rem max(1rem, calc((100% - 52rem) / 2));
    box-sizing: border-box;
  }

  ul {
    list-style: none;
    margin: 1.25rem 0 0;
    padding: 0;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 0.75rem;
    padding: 0.75rem 0;
    border-top: 1px solid var(--line);
  }

  li > div {
    flex: 1;
    min-width: 14rem;
    overflow-wrap: anywhere;
  }

  .empty {
    padding: 3rem 0;
  }
</style>
