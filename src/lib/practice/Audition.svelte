<script lang="ts">
  import { nanoid } from 'nanoid';
  import { drawn, MARKS, overTakes, strategyFor, tempoRemark, type Mark, type Mock } from '$core/rehearsal/audition';
  import { inShort } from '$core/rehearsal/plan/day';
  import type { PlanPiece } from '$core/rehearsal/plan/plan';
  import { LISTENING, type ListeningKey } from '$core/style/practice';
  import Act from '../controls/Act.svelte';
  import Field from '../controls/Field.svelte';
  import Figures from '../controls/Figures.svelte';
  import OneOf from '../controls/OneOf.svelte';
  import Words from '../controls/Words.svelte';
  import type { Practice } from './practice.svelte';

  /** Before listeners: what is asked for, an order by lot, one take, and the sheet of those who listen. */
  const { practice }: { practice: Practice } = $props();

  const { plan } = $derived(practice);
  const MARK_OPTIONS = Object.entries(MARKS).map(([value, label]) => ({ value: value as Mark, label }));
  /** The take that is being listened to; null before the lot is drawn. */
  let take = $state.raw<Omit<Mock, 'plan'> | null>(null);
  const order = $derived(take ? take.order.map((id) => plan.pieces.find((p) => p.id === id)!).filter(Boolean) : []);
  const takes = $derived([...practice.mocks].sort((a, b) => a.day.localeCompare(b.day)));

  function draw(): void {
    const [lot] = crypto.getRandomValues(new Uint32Array(1));
    const ids = drawn(
      plan.pieces.map((p) => p.id),
      lot
    );
    take = { id: nanoid(), day: practice.today, order: ids, tempi: {}, sheet: {}, listener: '', words: '' };
  }

  const change = (c: Partial<Mock>): void => void (take = take && { ...take, ...c });
  const mark = (key: ListeningKey, value: Mark): void => change({ sheet: { ...take!.sheet, [key]: value } });
  function taken(piece: PlanPiece, text: string): void {
    const value = Number(text);
    const tempi = { ...take!.tempi };
    if (text.trim() && value >= 10 && value <= 400) tempi[piece.id] = value;
    else delete tempi[piece.id];
    change({ tempi });
  }

  function keep(): void {
    practice.logMock(take!);
    take = null;
  }

  const put = (piece: PlanPiece, c: Partial<PlanPiece>): void =>
    practice.change({ pieces: plan.pieces.map((p) => (p.id === piece.id ? { ...p, ...c } : p)) });

  /** "88", "88-96". */
  function ask(piece: PlanPiece, text: string): void {
    const found = /^\s*(\d{2,3})(?:\s*[-–]\s*(\d{2,3}))?\s*$/.exec(text);
    if (!text.trim()) put(piece, { tempo: null });
    else if (found) {
      const [a, b] = [Number(found[1]), Number(found[2] ?? found[1])];
      put(piece, { tempo: { low: Math.min(a, b), high: Math.max(a, b) } });
    } else practice.fault = `“${text}” is no tempo: write quarters a minute, as 88 or 88–96.`;
  }
  const asked = ({ tempo }: PlanPiece): string => (!tempo ? '' : tempo.low === tempo.high ? `${tempo.low}` : `${tempo.low}–${tempo.high}`);
</script>

<h3>What is asked for</h3>
{#each plan.pieces as piece (piece.id)}
  <p class="row">
    <span class="name">{piece.title}</span>
    <Field label="quarter =" value={asked(piece)} maxlength={9} placeholder="88–96" onchange={(text) => ask(piece, text)} />
    <Field label="cuts" value={piece.cuts} maxlength={500} placeholder="none" onchange={(cuts) => put(piece, { cuts })} />
  </p>
{:else}
  <p class="quiet">No piece is in the plan yet.</p>
{/each}
<h3>Strategy</h3>
<Words
  label="Where to be sure rather than grand, in one sentence"
  value={plan.strategy}
  rows={2}
  maxlength={1000}
  onchange={(strategy) => practice.change({ strategy })}
/>
<p class="row">
  <Act onclick={() => practice.change({ strategy: strategyFor(plan) })} disabled={!strategyFor(plan)}>Suggest one from what is hardest</Act>
</p>

<h3>One take</h3>
{#if !take}
  <p class="row">
    <Act onclick={draw} disabled={!plan.pieces.length}>Draw the order by lot</Act>
    <span class="quiet">Then once through, no second try, as the listeners will hear it.</span>
  </p>
{:else}
  <ol data-testid="lot">
    {#each order as piece (piece.id)}
      <li>
        <span class="name">{piece.title}</span>
        {#if asked(piece)}<span class="quiet">asked for: {asked(piece)}</span>{/if}
        {#if piece.cuts}<span class="quiet">{piece.cuts}</span>{/if}
        <Field label="taken at" maxlength={5} value={take.tempi[piece.id] ?? ''} onchange={(text) => taken(piece, text)} />
        <span class="quiet">{tempoRemark(piece.tempo, take.tempi[piece.id]) ?? ''}</span>
      </li>
    {/each}
  </ol>
  {#each LISTENING as { key, asks } (key)}
    <div class="asks">
      <OneOf label={asks} across value={take.sheet[key]} options={MARK_OPTIONS} onchange={(value) => mark(key, value)} />
    </div>
  {/each}
  <p class="row"><Field label="Who listened" value={take.listener} maxlength={200} onchange={(listener) => change({ listener })} /></p>
  <Words label="In words" value={take.words} rows={2} maxlength={4000} onchange={(words) => change({ words })} />
  <p class="row"><Act onclick={keep}>Keep this take</Act><Act onclick={() => (take = null)}>Throw it away</Act></p>
{/if}

{#if takes.length}
  <h3>Takes so far</h3>
  <Figures
    heads={['Asked', ...takes.map((t) => `${inShort(t.day)}${t.listener ? `, ${t.listener}` : ''}`)]}
    rows={overTakes(takes)}
    data-testid="takes"
  >
    {#snippet cell(row, column)}
      {column === 0 ? row.asks.split(':')[0] : row.marks[column - 1] ? MARKS[row.marks[column - 1]!] : '–'}
    {/snippet}
  </Figures>
  {#each takes.filter((t) => t.words) as t (t.id)}<p class="quiet">{inShort(t.day)}: {t.words}</p>{/each}
{/if}

<style>
  h3 {
    padding: 0.8rem 0 0.3rem;
  }

  .row,
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.2rem;
    align-items: baseline;
    padding: 0.2rem 0;
  }

  .name {
    min-width: 12rem;
  }

  .asks :global(fieldset) {
    display: flex;
    padding: 0.2rem 0;
  }

  .asks :global(legend) {
    float: left;
    width: 30rem;
    max-width: 60vw;
    font: inherit;
  }

  .asks :global(.bx--radio-button-wrapper) {
    margin-right: 1.4rem;
  }
</style>
