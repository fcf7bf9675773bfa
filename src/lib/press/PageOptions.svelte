<script lang="ts">
  import OneOf from '$lib/controls/OneOf.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { kindName } from '$core/markings/describe';
  import { MARKING_KINDS, type MarkingKind } from '$core/markings/marking-kind';
  import { EXTRAS, PAPERS, VARIANTS, type Extra, type PageSettings, type StaffSize, type Variant } from '$core/reading/page-settings';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const STAFF_NAMES: Record<StaffSize, string> = { small: 'small', usual: 'usual', large: 'large print' };
  const VARIANT_NAMES: Record<Variant, [string, string]> = {
    study: ['To study', 'with preface, reasons and analysis'],
    performance: ['To play from', 'music alone, with what is played'],
    blank: ['Blank', 'the bare source with bar numbers'],
    card: ['Card', 'one page for the stand']
  };
  const EXTRA_NAMES: Record<Extra, string> = {
    keys: 'keys',
    phrases: 'phrase brackets',
    chords: 'chords',
    rhythm: 'harmonic rhythm',
    count: 'count line',
    skeleton: 'skeleton on a small staff above',
    ornaments: 'ornaments written out at the foot',
    questions: 'questions and answers'
  };

  const pages = $derived(workspace.reading.pages);
  /** Only kinds that the reading has; one that is hidden stays listed. */
  const kinds = $derived(MARKING_KINDS.filter((k) => pages.hidden.includes(k) || workspace.reading.markings.some((m) => m.kind === k)));
  const open = $derived(pages.variant === 'study' ? EXTRAS : EXTRAS.filter((e) => ['count', 'skeleton', 'ornaments'].includes(e)));

  const set = (change: Partial<PageSettings>) => workspace.act({ type: 'set-pages', pages: { ...pages, ...change } });
  const toggled = <T,>(list: readonly T[], item: T): T[] => (list.includes(item) ? list.filter((x) => x !== item) : [...list, item]);
</script>

<OneOf
  label="What for"
  value={pages.variant}
  options={VARIANTS.map((v) => ({ value: v, label: VARIANT_NAMES[v][0] }))}
  onchange={(v) => set({ variant: v })}
>
  {#snippet said(v)}<span>{VARIANT_NAMES[v][0]} <span class="quiet">{VARIANT_NAMES[v][1]}</span></span>{/snippet}
</OneOf>
<fieldset>
  <legend>Paper</legend>
  <div class="row">
    <Choice label="Size" value={pages.paper} onchange={(value) => set({ paper: value as PageSettings['paper'] })}
      >{#each Object.keys(PAPERS) as p (p)}<SelectItem value={p} text={p} />{/each}</Choice
    >
    <Choice label="Staff" value={pages.staff} onchange={(value) => set({ staff: value as StaffSize })}
      >{#each Object.entries(STAFF_NAMES) as [key, name] (key)}<SelectItem value={key} text={name} />{/each}</Choice
    >
    <Tick label="landscape" checked={pages.landscape} onchange={(checked) => set({ landscape: checked })} />
  </div>
</fieldset>
{#if pages.variant === 'study' || pages.variant === 'performance'}
  <fieldset>
    <legend>Shown beside the music</legend>
    {#each open as extra (extra)}
      <Tick label={EXTRA_NAMES[extra]} checked={pages.show.includes(extra)} onchange={() => set({ show: toggled(pages.show, extra) })} />
    {/each}
  </fieldset>
  {#if kinds.length}
    <fieldset class="kinds">
      <legend>Kinds of markings</legend>
      {#each kinds as kind (kind)}
        <Tick
          label={kindName(kind)}
          checked={!pages.hidden.includes(kind)}
          onchange={() => set({ hidden: toggled<MarkingKind>(pages.hidden, kind) })}
        />
      {/each}
    </fieldset>
  {/if}
{/if}

<style>
  fieldset {
    border: 0;
    margin: 0.9rem 0 0;
    padding: 0;
  }

  legend {
    font-family: var(--heading-face);
    padding: 0 0 0.2rem;
  }

  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1rem;
  }

  .kinds {
    columns: 2;
  }
</style>
