<script lang="ts">
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

  const focus = (field: HTMLInputElement, wanted: boolean) => {
    if (wanted) field.focus();
  };
</script>

<div class="entry" class:ticked={note.ticked}>
  <input
    type="checkbox"
    class="not-printed"
    checked={note.ticked ?? false}
    disabled={!workspace}
    onchange={(e) => change({ ticked: e.currentTarget.checked })}
    aria-label="Seen: {line.label}"
  />
  <button
    class="plain-button label"
    title="Write a comment"
    aria-label="Comment on {line.label}"
    disabled={!workspace}
    onclick={() => (writing = true)}>{line.label}</button
  >
  <div>
    {line.value}
    {#if line.bars.length}
      <span class="bars">
        {line.bars.length === 1 ? 'bar' : 'bars'}
        {#each line.bars.slice(0, MOST) as bar (bar)}<button class="bar-link" onclick={() => lead(bar)} aria-label="Go to bar {name(bar)}"
            >{name(bar)}</button
          >{/each}
        {#if line.bars.length > MOST}<span class="quiet">and {line.bars.length - MOST} more</span>{/if}
      </span>
    {/if}
    {#if writing || note.comment || line.ask}
      <span class="comment">
        <input
          value={note.comment ?? ''}
          placeholder={line.ask ? 'what does it mean?' : 'your comment'}
          aria-label="Your comment on {line.label}"
          maxlength="1000"
          disabled={!workspace}
          use:focus={writing}
          onchange={(e) => {
            writing = false;
            change({ comment: e.currentTarget.value.trim() });
          }}
        />
        {#if note.comment}<label class="not-printed"
            ><input type="checkbox" checked={note.preface ?? false} onchange={(e) => change({ preface: e.currentTarget.checked })} /> in the preface</label
          >{/if}
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

  .label {
    color: var(--muted);
    overflow-wrap: anywhere;
  }

  .ticked .label {
    text-decoration: line-through;
  }

  .bars {
    color: var(--muted);
    font-size: 0.85rem;
    padding-left: 0.3rem;
  }

  .comment {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    font-size: 0.88rem;
  }

  .comment > input {
    flex: 1;
    min-width: 0;
    font: inherit;
    color: var(--edition);
    background: var(--raised);
    border: 1px solid var(--line);
    padding: 0.05rem 0.3rem;
  }

  .comment label {
    white-space: nowrap;
    color: var(--muted);
  }

  input[type='checkbox'] {
    margin: 0;
  }
</style>
