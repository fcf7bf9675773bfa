<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';

  interface Props {
    /** Stands before it; read aloud only where `quietly`. */
    label: string;
    quietly?: boolean;
    value?: string | number | null;
    /** Called with what stands in it when it is left or Enter is pressed. */
    onchange?: (value: string) => void;
    /** The field itself. */
    ref?: HTMLInputElement | null;
    [attribute: string]: unknown;
  }
  let { label, quietly = false, value = $bindable(''), onchange, ref = $bindable(null), ...rest }: Props = $props();

  const changed = (event: Event): void => onchange?.((event.target as HTMLInputElement).value);
</script>

<span class="labelled" onchange={changed}>
  <TextInput labelText={label} hideLabel={quietly} size="sm" bind:value bind:ref {...rest} />
</span>
