<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Select } from 'carbon-components-svelte';

  interface Props {
    /** Stands before it; read aloud only where `quietly`. */
    label: string;
    quietly?: boolean;
    value?: string | number;
    onchange?: (value: string) => void;
    /** SelectItems. */
    children: Snippet;
    [attribute: string]: unknown;
  }
  let { label, quietly = false, value = $bindable(), onchange, children, ...rest }: Props = $props();

  const changed = (event: Event): void => onchange?.((event.target as HTMLSelectElement).value);
</script>

<span class="labelled">
  <Select labelText={label} hideLabel={quietly} size="sm" bind:selected={value} {...rest} on:change={changed}>{@render children()}</Select>
</span>
