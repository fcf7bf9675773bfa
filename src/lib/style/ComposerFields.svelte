<script lang="ts">
  import { untrack } from 'svelte';
  import Field from '$lib/controls/Field.svelte';
  import Words from '$lib/controls/Words.svelte';
  import type { ComposerNote } from '$core/reading/reading';
  import { AsTyped } from '../workspace/as-typed';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const NOTHING: ComposerNote = { dates: '', practice: '', source: '' };
  const stored = $derived(workspace.reading.composer ?? NOTHING);
  // svelte-ignore state_referenced_locally -- the fields start from what is stored and are the user's while they are typed in
  let note = $state<ComposerNote>({ ...stored });

  const typing = new AsTyped(() => {
    const composer = $state.snapshot(note);
    if (Object.entries(composer).every(([field, text]) => stored[field as keyof ComposerNote] === text)) return;
    workspace.act({ type: 'tell-of-composer', composer: Object.values(composer).some((text) => text.trim()) ? composer : null });
  });

  // What came from elsewhere (undo, another window) is taken in, but never over what is being typed.
  $effect(() => {
    const now = stored;
    if (!untrack(() => typing.waits)) note = { ...now };
  });

  $effect(() => {
    addEventListener('pagehide', typing.now);
    return () => {
      removeEventListener('pagehide', typing.now);
      typing.now();
    };
  });
</script>

<fieldset oninput={typing.typed} onfocusout={typing.now}>
  <legend>The composer’s own practice, for the preface</legend>
  <div class="fields">
    <Field label="Dates" placeholder="born – died" maxlength="100" bind:value={note.dates} />
    <Words
      label="What is known of it"
      rows={2}
      maxlength={2000}
      placeholder="Played the repeats softer, and never slowed before the last bar."
      bind:value={note.practice}
    />
    <Field label="Where that is written" placeholder="a letter, a pupil’s account, a recording" maxlength="300" bind:value={note.source} />
  </div>
</fieldset>

<style>
  .fields {
    display: grid;
    gap: 0.5rem;
  }
</style>
