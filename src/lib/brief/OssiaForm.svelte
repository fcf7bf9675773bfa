<script lang="ts">
  import { untrack } from 'svelte';
  import { nanoid } from 'nanoid';
  import { SelectItem } from 'carbon-components-svelte';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import Words from '../controls/Words.svelte';
  import { abcHead, abcLine } from '$core/score/abc/line';
  import { chunkWriter } from '$core/edition/chunk';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { LONGEST_LABEL, ossiaDocument, ossiaFault, type Ossia } from '$core/reading/ossia';
  import { api } from '../api';
  import { forget, keep, kept } from '../kept';
  import { sentenceOf } from '../workspace/latest';
  import TunePreview from '../writing/TunePreview.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** The one that is changed; null for a new one. */
    ossia: Ossia | null;
    ondone: () => void;
  }
  const { workspace, ossia, ondone }: Props = $props();

  const USUAL_LABEL = 'ossia';

  // What it stands for is settled when the form opens.
  const { part, staff, from, to } = untrack(() => {
    const { reading, pencil, selection } = workspace;
    return ossia ?? { part: reading.part, staff: pencil.note?.staff ?? 1, from: selection.from, to: selection.to };
  });
  const score = untrack(() => workspace.score!);
  const head = abcHead(score, part, staff, from);
  const withoutHead = (abc: string): string => abc.replace(/^(?:[A-Z]:.*\n)+/, '');
  /** What was typed and not kept, for the case that the window closes. */
  const key = `nuvelo-ossia-${untrack(() => workspace.data.readingId)}-${part}-${staff}-${from}-${to}`;
  const begun = untrack(() =>
    ossia ? ('abc' in ossia.music ? withoutHead(ossia.music.abc) : '') : kept(key) || abcLine(score, part, staff, from, to) || ''
  );

  let text = $state(begun);
  let label = $state(untrack(() => ossia?.label ?? (kept(`${key}-label`) || USUAL_LABEL)));
  let source = $state('');
  /** A document that was taken from another source; null where it is typed. */
  let taken = $state.raw<string | null>(untrack(() => (ossia && 'document' in ossia.music ? ossia.music.document : null)));
  let refused = $state('');

  const music = $derived(taken === null ? { abc: `${head}${text.trim()}\n` } : { document: taken });
  const made = $derived<Ossia>({
    id: ossia?.id ?? `ossia-${nanoid()}`,
    ...{ part, staff, from, to, music },
    label: label.trim() || USUAL_LABEL,
    printed: ossia?.printed ?? true,
    played: ossia?.played ?? false
  });
  const fault = $derived(taken === null && !text.trim() ? 'Nothing is typed yet.' : ossiaFault(score, made));
  const document = $derived(fault ? null : ossiaDocument(made));

  $effect(() => {
    if (ossia || taken !== null) return;
    keep(key, text);
    keep(`${key}-label`, label);
  });

  /** The same bars of another source. */
  async function take(hash: string): Promise<void> {
    refused = '';
    if (!hash) {
      taken = null;
      return;
    }
    try {
      const text = await api.source(hash);
      const other = readMusicXml(text);
      const wanted = score.measures.slice(from, to + 1).map((m) => m.number);
      const first = other.measures.findIndex((m) => m.number === wanted[0]);
      if (first < 0 || !other.parts[part]) throw new Error('That source does not have these bars.');
      taken = chunkWriter(text, other, [part])({ from: first, to: first + wanted.length });
    } catch (error) {
      refused = sentenceOf(error);
      source = '';
    }
  }

  function keepIt(): void {
    if (fault) return;
    workspace.act({ type: 'keep-ossia', ossia: $state.snapshot(made) as Ossia });
    forget(key);
    forget(`${key}-label`);
    ondone();
  }
</script>

<div class="form" data-testid="ossia-form">
  <Field label="Called" bind:value={label} maxlength={LONGEST_LABEL} />
  {#if workspace.data.otherSources.length}
    <Choice label="Its notes are" bind:value={source} onchange={(hash) => void take(hash)}>
      <SelectItem value="" text="typed here" />
      {#each workspace.data.otherSources as s (s.hash)}<SelectItem value={s.hash} text="those of {s.name}" />{/each}
    </Choice>
  {/if}
  {#if taken === null}
    <Words
      label="Notes in ABC, an eighth for each letter, bars parted by |"
      bind:value={text}
      rows={3}
      maxlength="20000"
      spellcheck="false"
    />
    <p class="quiet"><a href="/type" target="_blank" rel="noreferrer">What the letters and signs mean</a></p>
  {/if}
  {#if refused}<p class="wrong" role="alert">{refused}</p>{/if}
  {#if fault}<p class="wrong">{fault}</p>{:else if document}<TunePreview {document} />{/if}
  <p class="acts">
    <Act onclick={keepIt} disabled={fault !== null}>Keep it</Act>
    <Act onclick={ondone}>Never mind</Act>
  </p>
</div>

<style>
  .form {
    display: flex;
    flex-direction: column;
    gap: 0.4rem;
    border-left: 3px solid var(--edition);
    padding: 0.3rem 0.6rem;
  }

  .acts {
    display: flex;
    gap: 0.9rem;
  }
</style>
