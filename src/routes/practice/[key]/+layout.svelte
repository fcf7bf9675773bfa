<script lang="ts">
  import { untrack } from 'svelte';
  import { providePractice } from '$lib/practice/context';
  import { sharedOutbox, type Outbox } from '$lib/practice/outbox.svelte';
  import { Practice } from '$lib/practice/practice.svelte';

  const { data, children } = $props();

  /** One for the plan and its session, so that each shows what was done in the other. */
  const held = $state<{ current: { practice: Practice; outbox: Outbox } | null }>({ current: null });
  providePractice(held);

  $effect(() => {
    const { state } = data;
    return untrack(() => {
      const outbox = sharedOutbox();
      const practice = new Practice(state, outbox);
      held.current = { practice, outbox };
      const look = () => document.visibilityState === 'visible' && void practice.refresh();
      document.addEventListener('visibilitychange', look);
      return () => {
        document.removeEventListener('visibilitychange', look);
        held.current = null;
      };
    });
  });
</script>

{@render children()}
