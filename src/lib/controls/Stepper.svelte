<script lang="ts">
  import Act from './Act.svelte';

  interface Props {
    label: string;
    value: number | string;
    /** What its two buttons are called. */
    less: string;
    more: string;
    /** null at an end. */
    onless: (() => void) | null;
    onmore: (() => void) | null;
    'data-testid'?: string;
  }
  const { label, value, less, more, onless, onmore, 'data-testid': id }: Props = $props();
</script>

<span class="stepper">
  <span class="quiet">{label}</span>
  <Act onclick={() => onless?.()} disabled={!onless} aria-label={less}>−</Act>
  <span data-testid={id}>{value}</span>
  <Act onclick={() => onmore?.()} disabled={!onmore} aria-label={more}>+</Act>
</span>

<style>
  .stepper {
    display: inline-flex;
    gap: 0.45rem;
    align-items: baseline;
    white-space: nowrap;
  }
</style>
