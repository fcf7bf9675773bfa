<script lang="ts">
  import { Checkbox } from 'carbon-components-svelte';

  interface Props {
    label: string;
    quietly?: boolean;
    checked?: boolean;
    onchange?: (checked: boolean) => void;
    title?: string;
    [attribute: string]: unknown;
  }
  let { label, quietly = false, checked = $bindable(false), onchange, title, ...rest }: Props = $props();

  const changed = (event: Event): void => onchange?.((event.target as HTMLInputElement).checked);
</script>

<span class="tick" {title} onchange={changed}><Checkbox labelText={label} hideLabel={quietly} bind:checked {...rest} /></span>
