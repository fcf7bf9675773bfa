<script lang="ts">
  import Fold from '$lib/controls/Fold.svelte';
  import { inSigns } from '$core/analysis/words';
  import type { PlainChord } from '$core/analysis/plain-chord';
  import type { Workspace } from '../workspace/workspace.svelte';
  import PlainStaff from './PlainStaff.svelte';

  const { workspace, plain }: { workspace: Workspace; plain: PlainChord } = $props();
</script>

<div class="plain" data-testid="plain-chord">
  <Fold label="plain: {inSigns(plain.roman)}; {plain.words}"><PlainStaff {workspace} {plain} /></Fold>
</div>

<style>
  .plain {
    padding-left: 0.6rem;
    font-size: 0.86rem;
  }
</style>
