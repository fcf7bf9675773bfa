<script lang="ts" generics="V extends string | number">
  import type { Snippet } from 'svelte';
  import { RadioButton, RadioButtonGroup } from 'carbon-components-svelte';

  interface Props {
    label: string;
    quietly?: boolean;
    value: V | undefined;
    options: readonly { value: V; label: string }[];
    onchange?: (value: V) => void;
    across?: boolean;
    /** What stands beside a button instead of its bare label. */
    said?: Snippet<[value: V]>;
    [attribute: string]: unknown;
  }
  let { label, quietly = false, value = $bindable(), options, onchange, across = false, said, ...rest }: Props = $props();

  function changed({ detail }: CustomEvent<string | number>): void {
    if (detail === value || detail === undefined) return;
    value = detail as V;
    onchange?.(value);
  }
</script>

<div class="one-of">
  <RadioButtonGroup
    legendText={label}
    hideLegend={quietly}
    orientation={across ? 'horizontal' : 'vertical'}
    selected={value}
    {...rest}
    on:change={changed}
  >
    {#each options as option (option.value)}
      {#if said}
        <RadioButton value={option.value}><svelte:fragment slot="labelChildren">{@render said(option.value)}</svelte:fragment></RadioButton>
      {:else}
        <RadioButton value={option.value} labelText={option.label} />
      {/if}
    {/each}
  </RadioButtonGroup>
</div>
