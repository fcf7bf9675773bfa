<script lang="ts">
  import { Checkbox, Modal } from 'carbon-components-svelte';
  import type { ImportAnswers } from '../shapes';
  import type { Imported } from './import';

  type Asked = Extract<Imported, { tunes: unknown } | { already: unknown }>;

  interface Props {
    file: string;
    asked: Asked;
    /** What is said; null when nothing is to be taken in. */
    onanswer: (answer: ImportAnswers | null) => void;
  }
  const { file, asked, onanswer }: Props = $props();

  // svelte-ignore state_referenced_locally -- one question, one window
  let chosen = $state<boolean[]>('tunes' in asked ? asked.tunes.map(() => true) : []);

  function answer(): void {
    if ('already' in asked) return onanswer({ again: true });
    const tunes = chosen.flatMap((yes, k) => (yes ? [k] : []));
    onanswer(tunes.length ? { tunes } : null);
  }
</script>

<Modal
  size="sm"
  open
  modalHeading={'tunes' in asked ? `“${file}” holds ${asked.tunes.length} tunes` : 'This file is on the shelf already'}
  primaryButtonText={'tunes' in asked ? 'Put them on the shelf' : 'Put it there again'}
  primaryButtonDisabled={'tunes' in asked && !chosen.some(Boolean)}
  secondaryButtonText="Never mind"
  on:click:button--secondary={() => onanswer(null)}
  on:close={() => onanswer(null)}
  on:submit={answer}
>
  {#if 'tunes' in asked}
    <p>Each becomes a piece of its own. Which ones?</p>
    <fieldset class="plain" data-testid="tunes">
      <legend class="visually-hidden">Tunes</legend>
      {#each asked.tunes as title, k (k)}<Checkbox labelText={title} bind:checked={chosen[k]} />{/each}
    </fieldset>
  {:else}
    <p>“{file}” is the very file of which <a href="/pieces/{asked.already.piece}/reading">{asked.already.title}</a> was made.</p>
  {/if}
</Modal>
