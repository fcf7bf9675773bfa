<script lang="ts">
  import Field from '$lib/controls/Field.svelte';
  import Words from '$lib/controls/Words.svelte';
  import type { ComposerNote } from '$core/reading/reading';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const NOTHING: ComposerNote = { dates: '', practice: '', source: '' };
  const note = $derived(workspace.reading.composer ?? NOTHING);

  function tell(change: Partial<ComposerNote>): void {
    const composer = { ...note, ...change };
    workspace.act({ type: 'tell-of-composer', composer: Object.values(composer).some((text) => text.trim()) ? composer : null });
  }
</script>

<fieldset>
  <legend>The composer’s own practice, for the preface</legend>
  <div class="fields">
    <Field label="Dates" placeholder="born – died" maxlength="100" value={note.dates} onchange={(dates) => tell({ dates })} />
    <Words
      label="What is known of it"
      rows={2}
      placeholder="Played the repeats softer, and never slowed before the last bar."
      value={note.practice}
      onchange={(practice) => tell({ practice })}
    />
    <Field
      label="Where that is written"
      placeholder="a letter, a pupil’s account, a recording"
      maxlength="300"
      value={note.source}
      onchange={(source) => tell({ source })}
    />
  </div>
</fieldset>

<style>
  .fields {
    display: grid;
    gap: 0.5rem;
  }
</style>
