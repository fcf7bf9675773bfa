<script lang="ts">
  import type { Snippet } from 'svelte';
  import { Button } from 'carbon-components-svelte';

  interface Props {
    onclick?: (event: MouseEvent) => void;
    type?: 'button' | 'submit';
    /** `word` stands within text, `row` is a whole line that can be pressed. */
    look?: 'word' | 'row';
    class?: string;
    children: Snippet;
    [attribute: string]: unknown;
  }
  const { onclick, type = 'button', look = 'word', class: more = '', children, ...rest }: Props = $props();
</script>

<Button kind="ghost" size="small" {type} class="act act-{look} {more}" {...rest} on:click={(e) => onclick?.(e)}>{@render children()}</Button
>
