<script lang="ts">
  import Field from '$lib/controls/Field.svelte';
  import { api } from '../api';
  import { sentenceOf } from '../workspace/latest';
  import { goto } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import { inForceAt } from '$core/edition/excerpt';
  import type { Score } from '$core/score/model';
  import { findBar } from '$core/score/numbering';

  const { score, pieceId }: { score: Score; pieceId: number } = $props();

  let first = $state('');
  let last = $state('');
  let wrong = $state('');
  let busy = $state(false);

  const from = $derived(findBar(score, first));
  const told = $derived.by(() => {
    if (from === null || from === 0) return '';
    const parts = inForceAt(score, from).map((x) => `${x.text} (since bar ${score.measures[x.measure].number})`);
    const time = score.measures[from].time?.text ?? 'free meter';
    return `In force there: ${[time, ...parts].join(', ')}.`;
  });

  async function make(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const to = findBar(score, last);
    if (from === null || to === null) {
      const missing = from === null ? first : last;
      wrong = missing.trim() ? `There is no bar or letter “${missing}” in this piece.` : 'Please name the first and the last bar.';
      return;
    }
    if (to < from) {
      wrong = 'The last bar stands before the first one.';
      return;
    }
    wrong = '';
    busy = true;
    try {
      const { piece } = await api.excerpt(pieceId, from, to);
      await goto(`/pieces/${piece}/survey`);
    } catch (error) {
      wrong = sentenceOf(error);
    } finally {
      busy = false;
    }
  }
</script>

<form onsubmit={make}>
  <Field label="From bar or letter" bind:value={first} class="chars-5" maxlength="20" data-testid="excerpt-from" />
  <Field label="to" bind:value={last} class="chars-5" maxlength="20" data-testid="excerpt-to" />
  <Button size="small" kind="tertiary" type="submit" disabled={busy}>{busy ? 'Cutting …' : 'Make it a piece of its own'}</Button>
</form>
{#if told}<p class="quiet">{told}</p>{/if}
{#if wrong}<p role="alert" class="wrong">{wrong}</p>{/if}

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 0.8rem;
    align-items: center;
    padding-top: 0.3rem;
  }

  .wrong {
    color: var(--cds-danger-01);
  }
</style>
