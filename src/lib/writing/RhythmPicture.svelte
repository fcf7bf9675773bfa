<script lang="ts">
  import { inWords, type Value } from '$core/writing/values';
  import NoteValue from './NoteValue.svelte';

  const { rhythm }: { rhythm: readonly Value[] } = $props();
</script>

<span class="rhythm" role="img" aria-label={inWords(rhythm)}>
  {#each rhythm as value, k (k)}
    {#if value.tuplet?.start}<small>{value.tuplet.actual}</small>{/if}<NoteValue {value} />
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
