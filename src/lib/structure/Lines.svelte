<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import Sure from '$lib/controls/Sure.svelte';
  import Tick from '$lib/controls/Tick.svelte';
  import { Button, SelectItem } from 'carbon-components-svelte';
  import type { MotiveFact, MotiveOccurrence } from '$core/analysis/motives';
  import { NOTE_ROLES, VOICE_NAMES, type NoteRole, type VoiceName } from '$core/analysis/roles';
  import { againstMeter } from '$core/analysis/harmonic-rhythm';
  import { add, cmp, type Fraction } from '$core/score/fraction';
  import { pitchName } from '$core/score/pitch';
  import { inSigns } from '$core/analysis/words';
  import { placeName } from '$core/reading/moments';
  import type { Workspace } from '../workspace/workspace.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  /** Bars whose notes are listed one by one. */
  const MOST_BARS = 4;

  const score = $derived(workspace.score!);
  const details = $derived(workspace.study.details);
  const start = $derived<Fraction>(score.measures[workspace.selection.from].start);
  const end = $derived.by<Fraction>(() => {
    const m = score.measures[workspace.selection.to];
    return add(m.start, m.length);
  });
  const over = (f: { start: Fraction; end: Fraction }): boolean => cmp(f.start, end) < 0 && cmp(f.end, start) >= 0;
  const within = (t: Fraction): boolean => cmp(t, start) >= 0 && cmp(t, end) < 0;
  const roles = $derived(new Map((details?.roles ?? []).map((r) => [r.note, r])));
  const bars = $derived(workspace.selection.to - workspace.selection.from + 1);
  const notes = $derived(
    bars > MOST_BARS
      ? []
      : score.notes.filter(
          (n) =>
            n.pitch && n.part === workspace.reading.part && n.measure >= workspace.selection.from && n.measure <= workspace.selection.to
        )
  );
  const hasStreams = $derived((details?.streams.length ?? 0) > 0);
  const motives = $derived((details?.motives ?? []).map((m) => ({ ...m, here: m.occurrences.filter(over) })).filter((m) => m.here.length));
  const rhythms = $derived((details?.rhythms ?? []).filter((r) => within(r.start)));
  const harmonic = $derived(againstMeter(score, details?.harmonicRhythmFacts ?? [], workspace.selection.from, workspace.selection.to));
  const gestures = $derived((details?.gestures ?? []).filter((g) => within(g.start)));
  const suspects = $derived(details?.suspects ?? []);
  const byId = $derived(new Map(score.notes.map((n) => [n.id, n])));
  const lines = $derived((details?.lines ?? []).filter((l) => within(byId.get(l.notes[0])?.start ?? end)));

  /** All bars of a motive are led to, and its notes are marked on the page. */
  const measureOf = (t: Fraction): number => workspace.measureOf(t)?.index ?? 0;
  function mark(motive: MotiveFact, at: MotiveOccurrence): void {
    workspace.selection.bar(measureOf(at.start));
    workspace.selection.notes = new Set(motive.occurrences.flatMap((o) => o.notes));
  }

  function chooseNone(): void {
    workspace.selection.noNotes();
    workspace.study.forgetFound();
  }

  function setRole(note: { id: string; start: Fraction }, role: string): void {
    workspace.pin({ id: `pin-role-${note.id}`, kind: 'role', note: note.id, start: note.start, role: role as NoteRole });
  }

  function setVoice(note: { id: string; start: Fraction }, voice: string): void {
    if (voice) workspace.pin({ id: `pin-voice-${note.id}`, kind: 'voice', note: note.id, start: note.start, voice: voice as VoiceName });
  }
</script>

<section>
  <h3>Find this</h3>
  <p class="quiet">Choose three notes or more, here or on the page (“choose notes”), and get all places that are like them.</p>
  <form onsubmit={(e) => (e.preventDefault(), workspace.study.find([...workspace.selection.notes]))}>
    <Button size="small" kind="tertiary" type="submit" disabled={workspace.selection.notes.size < 3}
      >Find {workspace.selection.notes.size} notes</Button
    >
    {#if workspace.selection.notes.size}<Act onclick={chooseNone}>choose none</Act>{/if}
  </form>
  {#if workspace.study.found}
    {#each workspace.study.found.places as place, k (k)}
      <p data-testid="found">
        <Act onclick={() => workspace.selection.bar(workspace.measureOf(place.start)?.index ?? 0)}>{placeName(score, place.start)}</Act>
        {place.transformations.join(', ')}
      </p>
    {:else}<p class="quiet">The chosen notes do not stand in a row in one voice.</p>{/each}
  {/if}
</section>

<section>
  <h3>Notes</h3>
  {#if bars > MOST_BARS}<p class="quiet">Select up to {MOST_BARS} bars to see what each note is.</p>{/if}
  {#each notes as note (note.id)}
    {@const role = roles.get(note.id)}
    <div class="note" data-testid="note-role">
      <Tick
        label="Choose {pitchName(note.pitch!)} at {placeName(score, note.start)}"
        quietly
        checked={workspace.selection.notes.has(note.id)}
        onchange={() => workspace.selection.note(note.id)}
      />
      <span class="quiet">{placeName(score, note.start).replace(/^bar /, '')}</span>
      <strong>{pitchName(note.pitch!)}</strong>
      {#if role}
        <Choice label="What {pitchName(note.pitch!)} is" quietly value={role.role} onchange={(value) => setRole(note, value)}
          >{#each NOTE_ROLES as name (name)}<SelectItem value={name} text={name} />{/each}</Choice
        >
        <span class="quiet">{role.rank}{role.pinned ? ', set' : ''}</span>
      {/if}
      {#if hasStreams}
        <Choice label="Voice of {pitchName(note.pitch!)}" quietly value="" onchange={(value) => setVoice(note, value)}
          ><SelectItem value="" text="voice" />{#each VOICE_NAMES as name (name)}<SelectItem value={name} text={name} />{/each}</Choice
        >
      {/if}
    </div>
  {/each}
</section>

<section>
  <h3>Motives</h3>
  {#each motives as m (m.id)}
    <p>
      <strong>{m.name}</strong>: {m.here.map((o) => o.transformations.join(', ')).join('; ')} <span class="quiet">{m.evidence}</span>
      {#each m.occurrences as o, k (k)}<Act onclick={() => mark(m, o)}
          ><span title={o.transformations.join(', ')}>{placeName(score, o.start).replace(/,.*$/, '')}</span></Act
        >{/each}
      <Act onclick={() => workspace.pin({ id: `pin-dismiss-${m.id}`, kind: 'dismiss', start, fact: m.id, what: m.name })}>dismiss</Act>
    </p>
  {:else}<p class="quiet">None in these bars.</p>{/each}
</section>

<section>
  <h3>Meter, gesture, line</h3>
  {#each harmonic as h, k (k)}<p data-testid="harmonic-rhythm"><strong>harmony</strong> {h}</p>{/each}
  {#each rhythms as r, k (k)}<p>{placeName(score, r.start)}: <strong>{r.kind}</strong> <span class="quiet">{r.evidence}</span></p>{/each}
  {#each gestures as g, k (k)}<p>{placeName(score, g.start)}: <strong>{g.kind}</strong> <span class="quiet">{g.evidence}</span></p>{/each}
  {#each lines as l, k (k)}<p>
      <strong>{l.kind} line {l.direction}</strong>, {l.where}: {l.notes.map((n) => pitchName(byId.get(n)!.pitch!)).join(' ')}
    </p>{/each}
  {#if !harmonic.length && !rhythms.length && !gestures.length && !lines.length}<p class="quiet">
      Nothing out of the ordinary in these bars.
    </p>{/if}
</section>

<section>
  <h3>Suspect notes, whole piece</h3>
  {#each suspects as s (s.note)}
    <p data-testid="suspect">
      <Act onclick={() => workspace.selection.bar(workspace.measureOf(s.start)?.index ?? 0)}>{placeName(score, s.start)}</Act>:
      {inSigns(s.printed)}, or {inSigns(s.expected)}? <Sure of={s.confidence} /> <span class="quiet">{s.evidence}</span>
      <Act
        onclick={() =>
          workspace.pin({
            id: `pin-dismiss-suspect-${s.note}`,
            kind: 'dismiss',
            start: s.start,
            fact: `suspect-${s.note}`,
            what: 'suspect note'
          })}>it is right</Act
      >
    </p>
  {:else}<p class="quiet">No note differs from its parallel place without a reason.</p>{/each}
</section>

<style>
  section {
    padding-top: 0.8rem;
  }

  h3 {
    color: var(--muted);
  }

  p {
    padding: 0.1rem 0;
  }

  .note {
    display: grid;
    grid-template-columns: 1rem 6.6rem 2.6rem 1fr auto auto;
    gap: 0.4rem;
    align-items: center;
    font-size: 0.88rem;
  }
</style>
