<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Tabs from '$lib/frame/Tabs.svelte';
  import { Modal } from 'carbon-components-svelte';
  import { KEYS } from './keys';
  import { SIGNS } from './signs';

  interface Props {
    onclose: () => void;
    /** The way through the rooms is shown once more. */
    ontour: () => void;
  }
  const { onclose, ontour }: Props = $props();

  const TABS = { keys: 'Keys', signs: 'Signs and short names' } as const;
  let tab = $state<keyof typeof TABS>('keys');
</script>

<Modal open passiveModal modalHeading="Help" on:close={onclose} aria-label="Help">
  <p class="ways">
    <a href="/guide" onclick={onclose}>The guide</a>
    <Act onclick={() => (onclose(), ontour())}>Go through the rooms in two minutes</Act>
  </p>
  <Tabs tabs={TABS} bind:tab label="Kinds of help">
    {#if tab === 'keys'}
      <div class="keys">
        {#each KEYS as { where, lines } (where)}
          <section>
            <h3>{where}</h3>
            <dl>
              {#each lines as { keys, does } (keys + does)}
                <dt><kbd>{keys}</kbd></dt>
                <dd>{does}</dd>
              {/each}
            </dl>
          </section>
        {/each}
      </div>
    {:else}
      <dl>
        {#each SIGNS as { sign, means } (sign)}
          <dt>{sign}</dt>
          <dd>{means}</dd>
        {/each}
      </dl>
    {/if}
  </Tabs>
</Modal>

<style>
  .ways {
    display: flex;
    gap: 1.5rem;
    padding-bottom: 0.5rem;
  }

  .keys {
    columns: 22rem;
  }

  section {
    break-inside: avoid;
    padding-bottom: 0.6rem;
  }

  h3 {
    padding: 0.5rem 0 0.25rem;
  }

  dl {
    display: grid;
    grid-template-columns: minmax(7rem, auto) 1fr;
    gap: 0.1rem 0.9rem;
    margin: 0;
  }

  dd {
    margin: 0;
  }

  dt,
  kbd {
    font-family: var(--text-face);
    font-weight: 600;
  }
</style>
