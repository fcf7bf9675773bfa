<script lang="ts">
  import { api } from '$lib/api';
  import { sentenceOf } from '$lib/workspace/latest';
  import Act from '$lib/controls/Act.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { nanoid } from 'nanoid';
  import { goto } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import Asks from '$lib/survey/Asks.svelte';
  import CountLine from '$lib/survey/CountLine.svelte';
  import ExcerptForm from '$lib/survey/ExcerptForm.svelte';
  import ForWhom from '$lib/players/ForWhom.svelte';
  import PartInstruments from '$lib/survey/PartInstruments.svelte';
  import SurveyEntry from '$lib/survey/SurveyEntry.svelte';
  import { useWorkspace } from '$lib/workspace/context';

  const { data } = $props();
  const holder = useWorkspace();

  const groups = $derived((holder.current?.study.survey ?? data.survey).groups);

  let own = $state('');
  const ownLines = $derived(Object.entries(holder.current?.reading.survey ?? {}).filter(([, note]) => note.text !== undefined));

  const name = (bar: number): string => holder.current?.score?.measures[bar]?.number ?? String(bar + 1);

  function lead(bar: number): void {
    holder.current?.selection.bar(bar);
    void goto(`/pieces/${data.piece.id}/reading?bar=${bar}`);
  }

  let refused = $state('');

  /** A piece that was written or typed is opened again; a file says why not. */
  async function correct(): Promise<void> {
    try {
      const { id } = await api.openForWriting(data.piece.id);
      await goto(`/write/${id}`);
    } catch (error) {
      refused = sentenceOf(error);
    }
  }

  function add(event: SubmitEvent): void {
    event.preventDefault();
    const text = own.trim();
    if (!text || !holder.current) return;
    holder.current.act({ type: 'note-survey', line: `own/${nanoid()}`, note: { text } });
    own = '';
  }
</script>

<div class="survey">
  <header>
    <h1>{data.piece.title}</h1>
    <p class="quiet">{[data.piece.composer, data.piece.instrument].filter(Boolean).join(' · ')}</p>
    <Act class="not-printed" onclick={() => print()}>Print</Act>
    <Act class="not-printed" onclick={() => void correct()}>Correct the score</Act>
    {#if refused}<span class="not-printed" role="alert">{refused}</span>{/if}
    {#if holder.current?.log.canUndo}<Act class="not-printed" onclick={() => holder.current?.log.undo()}
        >Undo {holder.current.log.canUndo}</Act
      >{/if}
  </header>
  <div class="groups">
    {#each groups as group (group.title)}
      <section>
        <h2>{group.title}</h2>
        {#each group.lines as line (line.id)}
          <SurveyEntry {line} workspace={holder.current} {name} {lead} />
        {/each}
      </section>
    {/each}
    {#if holder.current?.score}
      <section hidden={holder.current.study.lies?.asks.lines.length === 0}>
        <h2>What it asks of the {holder.current.instrument.name}</h2>
        <Asks workspace={holder.current} {name} {lead} />
      </section>
      <section class="not-printed">
        <h2>Instruments</h2>
        <PartInstruments workspace={holder.current} score={holder.current.score} />
        <ForWhom workspace={holder.current} />
      </section>
      <section>
        <h2>Count line</h2>
        <CountLine score={holder.current.score} part={holder.current.reading.part} />
      </section>
    {/if}
    <section class:not-printed={!ownLines.length}>
      <h2>Your own lines</h2>
      {#each ownLines as [id, note] (id)}
        <p class="own">
          {note.text}
          <Tick
            class="not-printed"
            label="in the preface"
            checked={note.preface ?? false}
            onchange={(preface) =>
              holder.current?.act({ type: 'note-survey', line: id, note: preface ? { ...note, preface } : { text: note.text } })}
          />
          <Act class="not-printed" onclick={() => holder.current?.act({ type: 'note-survey', line: id, note: null })}>remove</Act>
        </p>
      {/each}
      <form class="not-printed" onsubmit={add}>
        <Field label="A line of your own" quietly bind:value={own} placeholder="what else strikes you" maxlength="1000" />
        <Button size="small" kind="tertiary" type="submit">Add to the survey</Button>
      </form>
    </section>
    {#if holder.current?.score}
      <section class="not-printed">
        <h2>Excerpt</h2>
        <ExcerptForm score={holder.current.score} pieceId={data.piece.id} />
      </section>
    {/if}
  </div>
</div>

<style>
  .survey {
    height: 100%;
    overflow-y: auto;
    padding: 1rem 1.5rem;
    box-sizing: border-box;
  }

  header {
    display: flex;
    gap: 1rem;
    align-items: baseline;
    padding-bottom: 0.5rem;
  }

  .groups {
    columns: 26rem;
    column-gap: 2.5rem;
  }

  section {
    break-inside: avoid-column;
    padding-bottom: 1.1rem;
  }

  h2 {
    border-bottom: 1px solid var(--line);
    padding-bottom: 0.15rem;
  }

  form {
    display: flex;
    gap: 0.5rem;
    padding-top: 0.3rem;
  }

  @media print {
    .survey {
      height: auto;
      overflow: visible;
      padding: 0;
      font-size: 9pt;
      line-height: 1.25;
    }

    .groups {
      columns: 2;
      column-gap: 1.5rem;
    }

    section {
      padding-bottom: 0.7rem;
    }

    h2 {
      break-after: avoid;
      font-size: 11pt;
    }
  }

  .own {
    padding: 0.1rem 0;
  }
</style>
