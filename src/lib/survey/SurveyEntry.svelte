<script lang="ts">
  import Field from '$lib/controls/Field.svelte';
  import Act from '$lib/controls/Act.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import type { SurveyNote } from '$core/reading/reading';
  import type { SurveyLine } from '$core/survey/survey';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    line: SurveyLine;
    /** Null until the browser has taken over. */
    workspace: Workspace | null;
    name: (bar: number) => string;
    lead: (bar: number) => void;
  }
  const { line, workspace, name, lead }: Props = $props();

  /** So many bars are named on a line; the rest is counted. */
  const MOST = 16;

  const note = $derived<SurveyNote>(workspace?.reading.survey[line.id] ?? {});
  let writing = $state(false);

  function change(part: SurveyNote): void {
    const next: SurveyNote = { ...note, ...part };
    if (!next.comment) delete next.comment;
    if (!next.ticked) delete next.ticked;
    if (!next.comment || !next.preface) delete next.preface;
    workspace?.act({ type: 'note-survey', line: line.id, note: Object.keys(next).length ? next : null });
  }

  let field = $state<HTMLInputElement | null>(null);
  $effect(() => {
    if (writing) field?.focus();
  });
</script>

<div class="entry" class:ticked={note.ticked}>
  <span class="not-printed"
    ><Tick
      label="Seen: {line.label}"
      quietly
      checked={note.ticked ?? false}
      disabled={!workspace}
      onchange={(checked) => change({ ticked: checked })}
    /></span
  >
  <Act
    look="row"
    class="label"
    title="Write a comment"
    aria-label="Comment on {line.label}"
    disabled={!workspace}
    onclick={() => (writing = true)}>{line.label}</Act
  >
  <div>
    {line.value}
    {#if line.bars.length}
      <span class="bars">
        {line.bars.length === 1 ? 'bar' : 'bars'}
        {#each line.bars.slice(0, MOST) as bar (bar)}<Act onclick={() => lead(bar)} aria-label="Go to bar {name(bar)}">{name(bar)}</Act
          >{/each}
        {#if line.bars.length > MOST}<span class="quiet">and {line.bars.length - MOST} more</span>{/if}
      </span>
    {/if}
    {#if writing || note.comment || line.ask}
      <span class="comment" class:not-printed={!note.comment}>
        <Field
          label="Your comment on {line.label}"
          quietly
          value={note.comment ?? ''}
          placeholder={line.ask ? 'what does it mean?' : 'your comment'}
          maxlength={1000}
          disabled={!workspace}
          bind:ref={field}
          onchange={(value) => {
            writing = false;
            change({ comment: value.trim() });
          }}
        />
        {#if note.comment}<Tick
            label="in the preface"
            checked={note.preface ?? false}
            onchange={(checked) => change({ preface: checked })}
          />{/if}
      </span>
    {/if}
  </div>
</div>

<style>
  .entry {
    display: grid;
    grid-template-columns: 1rem minmax(6.5rem, 8.5rem) 1fr;
    gap: 0.15rem 0.6rem;
    padding: 0.1rem 0;
    align-items: baseline;
  }

  @media print {
    /* The box to tick is not printed, and its column goes with it. */
    .entry {
      grid-template-columns: 8.5rem 1fr;
    }
  }

  .bars {
    color: var(--muted);
    font-size: 0.9em;
    padding-left: 0.3rem;
  }

  .comment {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    font-size: 0.88rem;
  }
</style>
