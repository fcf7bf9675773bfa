<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import type { Drill, DrillSettings } from '$core/rehearsal/context';
  import { atTempo } from '$core/rehearsal/ladder';
  import { CLICK_KINDS, CLICKS, type ClickKind } from '$core/performance/clicks';
  import { CONTROLS_OF, DRILL_CONTROLS, DRILLS, TURNED, type DrillControl } from '$core/style/drills';
  import { clicks } from '$core/style/tempo-words';
  import { barList } from '$core/score/position';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Stepper from '../controls/Stepper.svelte';
  import { saveFile } from '../save-file';
  import TunePreview from '../writing/TunePreview.svelte';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** One drill: what it is for, how it is set, its notes, how it sounds; kept in the plan, or saved. */
  const { workspace, drill: offered }: { workspace: Workspace; drill: Drill } = $props();

  /** As it was set here; null as it is offered. */
  let own = $state.raw<Drill | null>(null);
  let tempo = $state<number | null>(null);
  let shown = $state(false);
  let keptAs = $state('');
  let cannot = $state('');
  const drill = $derived(own ?? offered);
  const at = $derived(tempo ?? drill.tempo.start);
  const document = $derived(atTempo(drill.document, at));
  const controls = $derived(Object.keys(CONTROLS_OF[drill.kind] ?? {}) as DrillControl[]);
  const turned = $derived(TURNED[drill.kind]);
  const bars = $derived(
    barList(
      workspace.score!.measures,
      Array.from({ length: drill.to - drill.from + 1 }, (_, k) => drill.from + k)
    )
  );
  const { sheets } = $derived(workspace);
  const fileName = $derived(`${drill.kind}-${bars.replace(/[^\w]+/g, '-')}`);

  async function set(settings: Partial<DrillSettings>, kind = drill.kind): Promise<void> {
    const made = await workspace.study.drill({ kind, from: drill.from, to: drill.to, settings: { ...drill.settings, ...settings } });
    cannot = made ? '' : 'It cannot be written so in these bars.';
    if (!made) return;
    own = made;
    keptAs = '';
    shown = true;
  }

  async function keep(): Promise<void> {
    const task = await workspace.practice.toTask({
      drill: { ...drill, document, tempo: { ...drill.tempo, start: Math.min(at, drill.tempo.goal) } }
    });
    keptAs = task?.title ?? '';
  }

  async function midi(): Promise<void> {
    const file = await workspace.study.sheetMidi(document);
    if (file) saveFile(new Uint8Array(file), `${fileName}.mid`, 'audio/midi');
  }
</script>

<article class="item">
  <p><strong>{DRILLS[drill.kind].name}</strong> <span class="quiet">{bars}: {drill.because}</span></p>
  <p>{DRILLS[drill.kind].how}</p>
  <div class="acts">
    <Stepper
      label="quarter ="
      value={at}
      less="Slower"
      more="Faster"
      onless={() => (tempo = clicks(at, -1))}
      onmore={() => (tempo = clicks(at, 1))}
      data-testid="tempo"
    />
    <span class="quiet">up to {drill.tempo.goal}</span>
    {#each controls as control (control)}
      {@const { name, least, most } = DRILL_CONTROLS[control]}
      {@const value = drill.settings[control]}
      <Stepper
        label={name}
        {value}
        less="Less: {name}"
        more="More: {name}"
        onless={value > least ? () => void set({ [control]: value - 1 }) : null}
        onmore={value < most ? () => void set({ [control]: value + 1 }) : null}
        data-testid={control}
      />
    {/each}
    {#if turned}<Act onclick={() => void set({}, turned)}>The other way round</Act>{/if}
  </div>
  <div class="acts">
    <Act onclick={() => (shown = !shown)} aria-expanded={shown}>{shown ? 'Hide' : 'Show'}</Act>
    <Act onclick={() => void sheets.toggle(document)}>{sheets.sounds(document) ? 'Stop' : 'Hear'}</Act>
    <Choice label="with" value={sheets.player.clicking} onchange={(v) => (sheets.player.clicking = v as ClickKind)}
      >{#each CLICK_KINDS as kind (kind)}<SelectItem value={kind} text={CLICKS[kind]} />{/each}</Choice
    >
    <Act onclick={() => void keep()}>{keptAs ? 'In the plan' : 'Into the plan'}</Act>
    <Act onclick={() => saveFile(document, `${fileName}.musicxml`, 'application/vnd.recordare.musicxml+xml')}>MusicXML</Act>
    <Act onclick={() => void midi()}>MIDI</Act>
  </div>
  {#if cannot}<p class="quiet" role="status">{cannot}</p>{/if}
  {#if shown}<TunePreview {document} />{/if}
</article>

<style>
  .item {
    padding: 0.35rem 0;
    border-top: 1px solid var(--line);
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.9rem;
    align-items: baseline;
  }
</style>
