<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { nanoid } from 'nanoid';
  import { isKindFor, valuesFor } from '$core/markings/describe';
  import type { MarkingKind } from '$core/markings/marking-kind';
  import { onEach, valuesIn } from '$core/reading/pencil/many';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Kinds of which every note of a stretch may have one. */
  const KINDS: MarkingKind[] = ['articulation', 'accent', 'bowing', 'sticking'];
  const ALL = 'notes';

  let wanted = $state('articulation|staccato');
  let which = $state(ALL);

  const selection = $derived(workspace.selection);
  const part = $derived(workspace.reading.part);
  const signs = $derived(
    KINDS.filter((k) => isKindFor(k, workspace.instrument)).flatMap((kind) =>
      valuesFor(kind, workspace.instrument)!.map((value) => ({ kind, value }))
    )
  );
  const noteValues = $derived(workspace.score ? valuesIn(workspace.score, part, selection.from, selection.to) : []);
  const chosen = $derived(noteValues.includes(which) ? which : null);

  function mark(): void {
    const [kind, value] = wanted.split('|') as [MarkingKind, string];
    const { score, reading } = workspace;
    if (!score) return;
    const commands = onEach(score, reading.markings, kind, value, part, selection.from, selection.to, chosen, () => `mark-${nanoid()}`);
    const of = `${commands.length} ${commands.length === 1 ? 'note' : 'notes'}`;
    if (!commands.length) workspace.notice = 'Nothing was marked: these notes have such a sign already.';
    else workspace.act({ type: 'together', what: `${value.replace(/-/g, ' ')} on ${of}`, commands });
  }
</script>

{#if noteValues.length}
  <div class="choices" data-testid="mark-many">
    <Choice label="All" value={chosen ?? ALL} onchange={(value) => (which = value)}
      ><SelectItem value={ALL} text="notes" />{#each noteValues as v (v)}<SelectItem value={v} text="{v}s" />{/each}</Choice
    >
    <Choice label="of {selection.from === selection.to ? 'this bar' : 'these bars'}" bind:value={wanted}
      >{#each signs as s (s.kind + s.value)}<SelectItem value="{s.kind}|{s.value}" text={s.value.replace(/-/g, ' ')} />{/each}</Choice
    >
    <Act onclick={mark}>Mark them</Act>
  </div>
{/if}
