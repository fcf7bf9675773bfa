<script lang="ts">
  import Choice from '$lib/controls/Choice.svelte';
  import Field from '$lib/controls/Field.svelte';
  import { nanoid } from 'nanoid';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import { add, cmp, format } from '$core/score/fraction';
  import {
    againstPrinted,
    isKindFor,
    isOnNote,
    isSpan,
    kindName,
    kindOf,
    ownWords,
    valueFault,
    valuesFor,
    valuesOf
  } from '$core/markings/describe';
  import { MARKING_KINDS, type MarkingKind } from '$core/markings/marking-kind';
  import type { Marking } from '$core/markings/marking';
  import { placesIn, type Place } from '$core/reading/moments';
  import type { Workspace } from '../workspace/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** A marking to be edited; a new one is added without it. */
    marking?: Marking | null;
    ondone?: () => void;
  }
  const { workspace, marking = null, ondone }: Props = $props();

  /** Bars after the selection in which a span may end. */
  const REACH = 8;

  // svelte-ignore state_referenced_locally -- the fields start from the marking and are the user's from then on
  let kind = $state<MarkingKind>(marking?.kind ?? 'dynamic');
  // svelte-ignore state_referenced_locally
  let value = $state(marking?.value ?? 'mf');
  // svelte-ignore state_referenced_locally
  let remark = $state(marking?.remark ?? '');
  // svelte-ignore state_referenced_locally
  let own = $state(marking?.because.find((b) => !b.rule)?.text ?? '');
  let from = $state('');
  let to = $state('');
  let wrong = $state('');

  const key = (p: Place): string => `${p.staff}|${format(p.start)}`;
  const part = $derived(marking?.part ?? workspace.reading.part);
  const first = $derived(marking ? Math.max(0, (workspace.measureOf(marking.start)?.index ?? 0) - 1) : workspace.selection.from);
  const last = $derived(marking ? (workspace.measureOf(marking.start)?.index ?? 0) + 1 : workspace.selection.to);
  const places = $derived(workspace.score ? placesIn(workspace.score, part, first, last) : []);
  /** Only what the instrument can do, and what the marking is already. */
  const offered = $derived(MARKING_KINDS.filter((k) => k === marking?.kind || isKindFor(k, workspace.instrument)));
  const choices = $derived(
    valuesOf(kind)?.filter((v) => v === marking?.value || valuesFor(kind, workspace.instrument)!.includes(v)) ?? null
  );
  const usable = $derived(isOnNote(kind) ? places.filter((p) => p.note) : places);
  const start = $derived(usable.find((p) => key(p) === from) ?? usable[0]);
  const later = $derived(
    workspace.score && start && isSpan(kind)
      ? placesIn(workspace.score, part, first, last + REACH).filter(
          (p) => p.staff === start.staff && p.note && cmp(p.start, start.start) > 0
        )
      : []
  );
  const end = $derived(later.find((p) => key(p) === to) ?? later[Math.min(later.length - 1, 3)]);

  // The places of an opened marking are the user's, until it is moved on the page.
  let shownPlace = '';
  $effect.pre(() => {
    if (!marking) return;
    const place = JSON.stringify([marking.start, marking.end, marking.value]);
    if (place === shownPlace) return;
    shownPlace = place;
    value = marking.value;
    from = `${marking.staff}|${format(marking.start)}`;
    const endNote = workspace.note(marking.endNote);
    const last =
      kindOf(marking.kind).hangs === 'stretch' && marking.end
        ? later.filter((p) => cmp(p.start, marking.end!) < 0).at(-1)?.start
        : (endNote?.start ?? marking.end);
    if (last) to = `${marking.staff}|${format(last)}`;
  });

  $effect.pre(() => {
    const allowed = valuesOf(kind);
    if (allowed && !allowed.includes(value)) value = allowed[0];
    else if (!allowed && MARKING_KINDS.some((k) => valuesOf(k)?.includes(value)) && !marking) value = '';
  });

  function build(): Omit<Marking, 'id'> | null {
    if (!start) {
      wrong = 'Nothing sounds in these bars that this marking could stand on.';
      return null;
    }
    wrong = valueFault(kind, value.trim()) ?? '';
    if (wrong) return null;
    if (isSpan(kind) && !end) {
      wrong = 'There is no later note here for it to end on.';
      return null;
    }
    wrong = '';
    const made: Omit<Marking, 'id'> = {
      kind,
      value: value.trim(),
      part,
      staff: start.staff,
      start: start.start,
      because: [...(marking?.because.filter((b) => b.rule) ?? []), ...(own.trim() ? [{ text: own.trim() }] : [])]
    };
    if (start.note && isOnNote(kind)) made.note = start.note;
    if (isSpan(kind) && end) {
      const note = workspace.note(end.note);
      const { hangs } = kindOf(kind);
      made.end = hangs === 'stretch' && note ? add(end.start, note.duration) : end.start;
      if (end.note && hangs === 'notes') made.endNote = end.note;
    }
    const printed = workspace.score && againstPrinted(workspace.score, made);
    if (printed && !own.trim()) {
      wrong = `The page comes first: ${printed}. Say why under “Because”; it goes into the commentary.`;
      return null;
    }
    return made;
  }

  function submit(event: SubmitEvent): void {
    event.preventDefault();
    const made = build();
    if (!made) return;
    const toThePlayer = remark.trim();
    if (marking) workspace.act({ type: 'change-marking', id: marking.id, change: { ...made, remark: toThePlayer || null } });
    else {
      const id = `mark-${nanoid()}`;
      workspace.act({ type: 'add-marking', marking: { ...made, id, ...(toThePlayer ? { remark: toThePlayer } : {}) } });
      own = '';
      remark = '';
    }
    ondone?.();
  }
</script>

<form class="form" onsubmit={submit} data-testid={marking ? 'edit-marking' : 'add-marking'}>
  {#if !marking}<h4>Add a marking</h4>{/if}
  <Choice label="Kind" bind:value={kind} disabled={marking !== null}
    >{#each offered as k (k)}<SelectItem value={k} text={kindName(k)} />{/each}</Choice
  >
  {#if !choices}
    <Field label="What" bind:value maxlength="200" placeholder={ownWords(kind)?.hint} />
  {:else if choices.length > 1}
    <Choice label="What" bind:value
      >{#each choices as choice (choice)}<SelectItem value={choice} text={choice.replace(/-/g, ' ')} />{/each}</Choice
    >
  {/if}
  <Choice label="At" value={start ? key(start) : ''} onchange={(value) => (from = value)}
    >{#each usable as place (key(place))}<SelectItem value={key(place)} text={place.label} />{/each}</Choice
  >
  {#if isSpan(kind)}
    <Choice label="To" value={end ? key(end) : ''} onchange={(value) => (to = value)}
      >{#each later as place (key(place))}<SelectItem value={key(place)} text={place.label} />{/each}</Choice
    >
  {/if}
  <Field label="Because" bind:value={own} maxlength="1000" placeholder="your reason, in your words" />
  <Field label="To the player" bind:value={remark} maxlength="1000" placeholder="a word to the player" />
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
  <div class="acts">
    <Button size="small" type="submit" kind={marking ? 'primary' : 'tertiary'}>{marking ? 'Change' : 'Add'}</Button>
  </div>
</form>

<style>
  .form {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.3rem 0.6rem;
    margin-top: 0.6rem;
    padding-top: 0.5rem;
    border-top: 1px solid var(--line);
  }

  h4 {
    grid-column: 1 / -1;
    margin: 0;
    font-size: 0.9rem;
    font-weight: 600;
  }

  .wrong,
  .acts {
    grid-column: 1 / -1;
  }

  .wrong {
    color: var(--cds-danger-01);
  }
</style>
