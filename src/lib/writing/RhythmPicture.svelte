<script lang="ts">
  import { inWords, lengthWords, nameOf, type Value } from '$core/writing/values';
  import NoteValue from './NoteValue.svelte';

  const { rhythm }: { rhythm: readonly Value[] } = $props();
</script>

<span class="rhythm" role="img" aria-label={inWords(rhythm)}>
  {#each rhythm as value, k (k)}
    {#if value.tuplet?.start}<small>{value.tuplet.actual}</small>{/if}{#if nameOf(value.written)}<NoteValue {value} />{:else}<small
        >{lengthWords(value.written)}{value.rest ? ' rest' : ''}</small
      >{/if}
  {/each}
</span>

<style>
  .rhythm {
    white-space: nowrap;
  }

  small {
    color: var(--muted);
  }
</style>
