<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import type { PlainChord } from '$core/analysis/plain-chord';
  import { chordPair, midiOf } from '$core/edition/chord-pair';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { Engraver } from '../music/engraver';
  import SystemView from '../music/SystemView.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace, plain }: { workspace: Workspace; plain: PlainChord } = $props();

  /** Pixels of the line, and the size of the staff against the usual one. */
  const LINE = 240;
  const SIZE = 0.9;
  // Two bars that stand in no page, so they have an engraver of their own while they are shown.
  const engraver = new Engraver();
  const options = { line: LINE, size: SIZE, sounding: true, version: 0 };
  let opened = $state(false);
  const document = $derived(chordPair(plain));

  $effect(() => {
    engraver.open(document, readMusicXml(document));
    opened = true;
    return () => engraver.close();
  });
</script>

<div class="staff" data-testid="plain-staff">
  {#if opened}<SystemView {engraver} chunk={{ from: 0, to: 2, systems: [0] }} {options} markings={[]} rows={[]} eager reserve={80} />{/if}
</div>
<p class="quiet">First the plain chord, then the one that stands here.</p>
<Act onclick={() => workspace.player.chords([midiOf(plain.plain), midiOf(plain.coloured)])}>hear both</Act>

<style>
  .staff {
    width: 240px;
  }
</style>
