<script lang="ts">
  import { untrack } from 'svelte';
  import { screenSystems } from '$core/edition/screen';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { Engraver } from '../music/engraver';
  import SystemView from '../music/SystemView.svelte';

  /** A score as it would come in. @property most lines that are shown: the first ones @property size of the staff against the usual one */
  const { document, most = 4, size = 1 }: { document: string; most?: number; size?: number } = $props();

  const engraver = new Engraver();
  let width = $state(0);
  let version = $state(0);
  const score = $derived(readMusicXml(document));
  const line = $derived(Math.max(320, Math.round(width / 40) * 40));
  const chunks = $derived(width ? screenSystems(score, [], line).slice(0, most) : []);

  $effect.pre(() => {
    engraver.open(document, score);
    version = untrack(() => version) + 1;
  });
  $effect(() => () => engraver.close());
</script>

<div bind:clientWidth={width} role="img" aria-label={most < 5 ? 'The first lines, engraved' : 'The notes, engraved'}>
  {#if version}
    {#each chunks as chunk (chunk.from)}
      <SystemView {engraver} {chunk} options={{ line, size, sounding: false, version }} markings={[]} rows={[]} eager reserve={110} />
    {/each}
  {/if}
</div>
