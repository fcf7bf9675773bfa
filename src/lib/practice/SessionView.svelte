<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { FALLBACK_TEMPO } from '$core/performance/playable-score';
  import { CLICK_KINDS, CLICKS, type ClickKind } from '$core/performance/clicks';
  import { PLANNED } from '$core/rehearsal/plan/days';
  import { bestBefore, FELT, type Felt } from '$core/rehearsal/plan/visit';
  import { atTempo } from '$core/rehearsal/ladder';
  import { readMusicXml } from '$core/score/musicxml/read';
  import { CARE, LADDER } from '$core/style/practice';
  import { api } from '../api';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';
  import Fold from '../controls/Fold.svelte';
  import OneOf from '../controls/OneOf.svelte';
  import { sentenceOf } from '../workspace/latest';
  import { takeStudyWorker } from '../workspace/study-worker';
  import TunePreview from '../writing/TunePreview.svelte';
  import { Clicker } from './clicker.svelte';
  import type { Outbox } from './outbox.svelte';
  import type { Practice } from './practice.svelte';
  import { Session } from './session.svelte';
  import { SheetSound } from './sheet-sound.svelte';

  /** A session with one hand on the instrument: what is next, why, for how long; every act is one key or one tap. */
  const { practice, outbox }: { practice: Practice; outbox: Outbox } = $props();

  /** Bars of a sheet that is short. */
  const SHORT = 6;
  const session = untrack(() => new Session(practice));
  const { task, turn, current } = $derived(session);
  const ladder = $derived(current.ladder);
  const clicker = new Clicker(() => session.current.ladder?.at ?? FALLBACK_TEMPO);
  const worker = takeStudyWorker();
  const sound = new SheetSound(async (document) => {
    try {
      return await worker.port.sheetPlayed(document);
    } catch (error) {
      sheetFault = sentenceOf(error);
      return null;
    }
  });
  /** Notes by sheet, fetched before they are needed, so that the connection may go. */
  let sheets = $state.raw<ReadonlyMap<string, string>>(new Map());
  let sheetFault = $state('');
  const notes = $derived(task?.sheet ? (sheets.get(task.sheet) ?? null) : null);
  const shown = $derived(notes && ladder && task?.drill ? atTempo(notes, ladder.at) : notes);
  /** The quickest clean tempo of the days before. */
  const before = $derived(task ? bestBefore(practice.visits, task.key, practice.today) : null);
  /** A short sheet is seen from further away. */
  const size = $derived(task?.bars && task.bars.to - task.bars.from < SHORT ? 1.3 : 1);
  const FEELINGS = Object.entries(FELT).map(([value, label]) => ({ value: value as Felt, label }));

  async function fetchSheets(): Promise<void> {
    const wanted = [...new Set(session.turns.flatMap((t) => practice.tasks.get(t.task)?.sheet ?? []))];
    for (const sheet of wanted)
      try {
        sheets = new Map(sheets).set(sheet, await api.sheet(sheet));
      } catch (error) {
        sheetFault = sentenceOf(error);
      }
    keepForLater();
  }

  /** What this page is made of is kept in the browser, so that it opens again without a connection. */
  function keepForLater(): void {
    const own = performance.getEntriesByType('resource').map((r) => r.name);
    const addresses = own.filter((a) => a.startsWith(location.origin) && /\/_app\/|\/api\/practice\/sheets\//.test(a) && !/\.mp3$/.test(a));
    void navigator.serviceWorker?.ready.then((r) => r.active?.postMessage({ keep: [location.href, ...new Set(addresses)] }));
  }

  const time = (seconds: number): string => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

  function onward(): void {
    clicker.stop();
    sound.player.stop();
    session.next();
  }

  function key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.target instanceof HTMLElement && event.target.closest('input, textarea, select')) return;
    if (session.over || session.breakUntil !== null) return;
    const acts: Record<string, () => void> = {
      ' ': () => session.clean(),
      ArrowLeft: () => session.missed(),
      ArrowRight: onward,
      ArrowUp: () => session.tempo(1),
      ArrowDown: () => session.tempo(-1),
      Backspace: () => session.takeBack(),
      Enter: () => void clicker.toggle()
    };
    // Enter on a button is that button's.
    const onButton = event.target instanceof HTMLElement && event.target.closest('button, a') !== null;
    const act = event.key === 'Enter' && onButton ? undefined : acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  }

  $effect(() => {
    clicker.take(notes === null ? null : readMusicXml(notes));
  });

  onMount(() => {
    void fetchSheets();
    let awake: { release(): Promise<void> } | null = null;
    // The screen stays on while one plays; not every browser can.
    navigator.wakeLock?.request('screen').then(
      (lock) => (awake = lock),
      () => {}
    );
    return () => {
      session.close();
      clicker.close();
      sound.close();
      worker.close();
      void awake?.release();
    };
  });
</script>

<svelte:window onkeydown={key} />

<div class="session">
  <header>
    <a href="/practice/{practice.plan.key}">{practice.plan.title}</a>
    <span class="quiet" data-testid="connection">{outbox.waiting ? `${outbox.waiting} not sent yet; kept here` : 'all saved'}</span>
    {#if !session.over}
      <span class="number">{session.at + 1} of {session.turns.length}</span>
      {#if session.running}<Act onclick={() => session.pause()}>Pause</Act>{:else}<Act onclick={() => session.go()}>Start the time</Act
        >{/if}
    {/if}
  </header>

  {#if practice.plan.stopped}
    <section class="middle">
      <h1>Stop here</h1>
      <p>{CARE.pain}</p>
      <p><a href="/practice/{practice.plan.key}">To the plan</a></p>
    </section>
  {:else if session.breakUntil !== null}
    <section class="middle" aria-label="Break">
      <h1>{time(session.breakLeft)}</h1>
      <p>{CARE.rest}</p>
      <button type="button" class="big go" onclick={() => session.endRest()}>Go on</button>
    </section>
  {:else if session.over}
    <section class="middle">
      <h1>{session.turns.length ? 'That is all for today.' : 'Nothing is planned for today.'}</h1>
      <p>
        {Math.round(practice.visits.filter((v) => v.day === practice.today).reduce((n, v) => n + v.seconds, 0) / 60)} minutes today. The days
        that come are planned from what you did.
      </p>
      <p><a href="/practice/{practice.plan.key}">To the plan</a></p>
      <p><Act onclick={() => session.again()}>Is there more?</Act></p>
    </section>
  {:else if task && turn}
    <section class="task">
      <h1>{task.title}</h1>
      <p class="quiet">
        {practice.plan.pieces.find((p) => p.id === task.piece)?.title ?? ''}{turn.of > 1 ? `, turn ${turn.turn} of ${turn.of}` : ''}: {PLANNED[
          turn.why
        ]};
        {task.because}
      </p>
      <p class="how">{task.how}</p>
      <p class="time" class:up={session.timeIsUp}>
        <span data-testid="time">{time(current.seconds)}</span> of {turn.minutes}:00{session.timeIsUp
          ? ': on to the next, it comes back'
          : ''}
      </p>
      {#if session.breakDue}
        <p role="status" class="care">{CARE.breakAfter} minutes. {CARE.rest} <Act onclick={() => session.rest()}>Rest now</Act></p>
      {:else if session.restLips}<p role="status" class="care">{CARE.portions}</p>{/if}
    </section>

    <div class="notes">
      {#if shown}{#key task.sheet}<TunePreview document={shown} most={200} {size} />{/key}
      {:else if task.sheet}<p class="quiet">{sheetFault || 'Fetching the notes …'}</p>{/if}
    </div>

    {#if ladder}
      <section class="ladder" aria-label="Ladder">
        <button type="button" class="step" onclick={() => session.tempo(-1)} aria-label="Slower">−</button>
        <span class="tempo">♩ = <span data-testid="tempo">{ladder.at}</span></span>
        <button type="button" class="step" onclick={() => session.tempo(1)} aria-label="Faster">+</button>
        <span class="row" aria-label="{ladder.clean} of {LADDER.clean} clean in a row" data-testid="row">
          {#each Array.from({ length: LADDER.clean }, (_, k) => k) as k (k)}<i class:full={k < ladder.clean}></i>{/each}
        </span>
        <span class="quiet">began {ladder.start}, best {ladder.best ?? '–'}{before ? `, before ${before}` : ''}, goal {ladder.goal}</span>
      </section>
    {/if}
    <section class="click">
      <Act onclick={() => void clicker.toggle()} aria-pressed={clicker.running}>{clicker.running ? 'Click off' : 'Click on'}</Act>
      <Choice label="click" quietly value={clicker.kind} onchange={(v) => (clicker.kind = v as ClickKind)}
        >{#each CLICK_KINDS.filter((k) => k !== 'none') as kind (kind)}<SelectItem value={kind} text={CLICKS[kind]} />{/each}</Choice
      >
      {#if shown}<Act onclick={() => void sound.toggle(shown)}>{sound.sounds(shown) ? 'Stop' : 'Hear'}</Act>{/if}
      <Act onclick={() => session.takeBack()} disabled={!session.canTakeBack}>Take the last tap back</Act>
      <Act onclick={() => session.pain()}>It hurts</Act>
    </section>
    <Fold label="Say something about it">
      <OneOf label="It went" across value={current.felt ?? undefined} options={FEELINGS} onchange={(felt) => session.say({ felt })} />
      <Field label="What was hard" value={current.hard} maxlength={500} onchange={(hard) => session.say({ hard })} />
      <Field label="Own words" value={current.words} maxlength={4000} onchange={(words) => session.say({ words })} />
    </Fold>

    <footer>
      <button type="button" class="big" onclick={() => session.missed()}>Not yet<kbd>←</kbd></button>
      <button type="button" class="big go" onclick={() => session.clean()}>Clean<kbd>space</kbd></button>
      <button type="button" class="big" onclick={onward}>Next<kbd>→</kbd></button>
    </footer>
  {/if}
</div>

<style>
  .session {
    height: 100%;
    display: flex;
    flex-direction: column;
    gap: 0.35rem;
    padding: 0.5rem max(0.8rem, calc((100% - 62rem) / 2));
    box-sizing: border-box;
  }

  header,
  .ladder,
  .click {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0.2rem 1rem;
  }

  header .quiet {
    margin-left: auto;
  }

  h1 {
    font-size: 1.35rem;
    line-height: 1.2;
  }

  .how {
    font-size: 0.95rem;
  }

  .time {
    font-variant-numeric: tabular-nums;
  }

  .up {
    color: var(--edition);
  }

  .care {
    border-left: 3px solid var(--edition);
    padding-left: 0.6rem;
  }

  .notes {
    flex: 1;
    min-height: 7rem;
    overflow-y: auto;
    background: var(--raised);
  }

  .tempo {
    font-size: 1.6rem;
    font-variant-numeric: tabular-nums;
  }

  .step {
    width: 3rem;
    height: 2.6rem;
    border: 1px solid var(--line);
    background: var(--raised);
    color: var(--ink);
    font-size: 1.4rem;
    touch-action: manipulation;
  }

  .ladder {
    align-items: center;
  }

  .row {
    display: inline-flex;
    gap: 0.3rem;
  }

  .row i {
    width: 0.8rem;
    height: 0.8rem;
    border: 1.5px solid var(--ink);
    display: inline-block;
  }

  .row .full {
    background: var(--ink);
  }

  footer {
    display: grid;
    grid-template-columns: 1fr 2fr 1fr;
    gap: 0.5rem;
  }

  .big {
    min-height: 4.2rem;
    border: 1px solid var(--line);
    background: var(--raised);
    color: var(--ink);
    font: inherit;
    font-size: 1.2rem;
    cursor: pointer;
    touch-action: manipulation;
  }

  .go {
    background: var(--ink);
    color: var(--paper);
  }

  kbd {
    display: block;
    font-size: 0.75rem;
    opacity: 0.75;
    font-family: inherit;
  }

  .middle {
    margin: auto;
    max-width: 32rem;
    text-align: center;
    display: flex;
    flex-direction: column;
    gap: 0.8rem;
  }
</style>
