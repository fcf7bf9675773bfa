<script lang="ts" generics="T extends string">
  import type { Snippet } from 'svelte';
  import { Tab, TabContent, Tabs } from 'carbon-components-svelte';

  interface Props {
    /** Names of the tabs by key, in order. */
    tabs: Record<T, string>;
    tab: T;
    label: string;
    /** What stands under the chosen tab. */
    children: Snippet;
  }
  let { tabs, tab = $bindable(), label, children }: Props = $props();

  const keys = $derived(Object.keys(tabs) as T[]);
</script>

<Tabs autoWidth size="sm" aria-label={label} bind:selected={() => keys.indexOf(tab), (k) => (tab = keys[k] ?? tab)}>
  {#each keys as key (key)}<Tab label={tabs[key]} />{/each}
  <svelte:fragment slot="content">
    {#each keys as key (key)}<TabContent
        >{#if key === tab}{@render children()}{/if}</TabContent
      >{/each}
  </svelte:fragment>
</Tabs>
