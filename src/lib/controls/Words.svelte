<script lang="ts">
  import { TextArea } from 'carbon-components-svelte';

  interface Props {
    label: string;
    quietly?: boolean;
    value?: string;
    /** Called with what stands in it when it is left. */
    onchange?: (value: string) => void;
    oninput?: () => void;
    onblur?: () => void;
    ref?: HTMLTextAreaElement | null;
    [attribute: string]: unknown;
  }
  let { label, quietly = false, value = $bindable(''), onchange, oninput, onblur, ref = $bindable(null), ...rest }: Props = $props();

  const changed = (event: Event): void => onchange?.((event.target as HTMLTextAreaElement).value);
</script>

<div class="words" onchange={changed}>
  <TextArea labelText={label} hideLabel={quietly} bind:value bind:ref {...rest} on:input={() => oninput?.()} on:blur={() => onblur?.()} />
</div>
