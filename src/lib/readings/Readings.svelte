<script lang="ts">
  import type { Snippet } from 'svelte';
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { api } from '../api';
  import { sentenceOf } from '../workspace/latest';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { Modal, TextInput, SelectItem } from 'carbon-components-svelte';

  import Menu from '$lib/frame/Menu.svelte';

  interface Props {
    piece: number;
    readings: { id: number; name: string }[];
    current: number;
    /** What else there is to say of the reading. */
    more?: Snippet;
  }
  const { piece, readings, current, more }: Props = $props();

  let asking = $state<'copy' | 'rename' | 'remove' | null>(null);
  let name = $state('');
  let fault = $state('');
  const own = $derived(readings.find((r) => r.id === current)?.name ?? '');

  const open = (id: number) => goto(`${page.url.pathname}?reading=${id}`, { invalidateAll: true });

  function ask(what: 'copy' | 'rename' | 'remove'): void {
    asking = what;
    fault = '';
    name = what === 'copy' ? `${own}, otherwise` : own;
  }

  async function carryOut(): Promise<void> {
    try {
      if (asking === 'copy') {
        const { id } = await api.copyReading(piece, current, name);
        asking = null;
        await open(id);
      } else if (asking === 'remove') {
        await api.removeReading(current);
        asking = null;
        await open(readings.find((r) => r.id !== current)!.id);
      } else {
        await api.renameReading(current, name);
        asking = null;
        await invalidateAll();
      }
    } catch (error) {
      fault = sentenceOf(error);
    }
  }
</script>

<Choice label="Reading" value={current} onchange={(value) => void open(Number(value))} data-testid="reading"
  >{#each readings as reading (reading.id)}<SelectItem value={reading.id} text={reading.name} />{/each}</Choice
>
<Menu label="more">
  {@render more?.()}
  <Act onclick={() => ask('copy')}>Copy this reading</Act>
  <Act onclick={() => ask('rename')}>Rename it</Act>
  {#if readings.length > 1}<Act onclick={() => ask('remove')}>Take it away</Act>{/if}
</Menu>

<Modal
  size="sm"
  open={asking !== null}
  danger={asking === 'remove'}
  modalHeading={asking === 'copy' ? 'Copy this reading' : asking === 'rename' ? 'Rename this reading' : `Take “${own}” away`}
  primaryButtonText={asking === 'copy' ? 'Copy' : asking === 'rename' ? 'Rename' : 'Take away'}
  secondaryButtonText="Never mind"
  on:click:button--secondary={() => (asking = null)}
  on:close={() => (asking = null)}
  on:submit={() => void carryOut()}
>
  {#if asking === 'remove'}
    <p>All its markings, answers and reasons go with it. The piece and its other readings stay.</p>
  {:else}
    <p class="quiet">
      {asking === 'copy' ? 'The copy begins with everything that is decided here; from then on both go their own ways.' : ''}
    </p>
    <TextInput labelText="Name" bind:value={name} maxlength={80} />
  {/if}
  {#if fault}<p class="wrong" role="alert">{fault}</p>{/if}
</Modal>

<style>
  .wrong {
    color: var(--cds-danger-01);
  }
</style>
