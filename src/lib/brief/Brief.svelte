<script lang="ts">
  import InPrint from '$lib/writing/InPrint.svelte';
  import { keep, kept } from '$lib/kept';
  import Fold from '$lib/controls/Fold.svelte';
  import Act from '$lib/controls/Act.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import { SelectItem } from 'carbon-components-svelte';
  import { nanoid } from 'nanoid';
  import { cmp } from '$core/score/fraction';
  import { CAUTIONS } from '$core/style/cautions';
  import { explainLoudness, explainTime } from '$core/performance/explain';
  import { brief } from '$core/reading/brief';
  import type { Workspace } from '../workspace/workspace.svelte';
  import { placesWithin } from '$core/reading/questions';
  import { inScope, SCOPES, type Scope } from '$core/reading/scopes';
  import CopyMarkings from './CopyMarkings.svelte';
  import MarkMany from './MarkMany.svelte';
  import MarkingForm from './MarkingForm.svelte';
  import MarkingItem from './MarkingItem.svelte';
  import { markingName } from '$core/markings/describe';
  import Drills from './Drills.svelte';
  import Ossias from './Ossias.svelte';
  import HowItLies from './HowItLies.svelte';
  import Ornaments from './Ornaments.svelte';
  import ProposalItem from './ProposalItem.svelte';
  import QuestionCard from './QuestionCard.svelte';
  import WrittenBrief from './WrittenBrief.svelte';

  const { workspace }: { workspace: Workspace } = $props();

  const score = $derived(workspace.score);
  const selection = $derived(workspace.selection);
  const text = $derived(
    score ? brief(score, workspace.facts, workspace.reading.markings, selection.from, selection.to, workspace.reading.part) : null
  );
  const markings = $derived(
    workspace.reading.markings
      .filter((m) => workspace.selection.holds(m.start, m.end ?? null) || m.id === workspace.selection.openMarking)
      .sort((a, b) => cmp(a.start, b.start))
  );
  const proposals = $derived(workspace.study.proposals.filter((p) => workspace.selection.holds(p.marking.start)));
  const open = $derived(proposals.filter((p) => !workspace.decisionOf(p.key)));
  const aside = $derived(proposals.filter((p) => workspace.decisionOf(p.key)?.status === 'set aside'));
  const title = $derived.by(() => {
    if (!score) return '';
    const [a, b] = [score.measures[selection.from], score.measures[selection.to]];
    return a === b ? workspace.barName(a) : `Bars ${a.number} to ${b.number}`;
  });

  const questions = $derived(
    score
      ? workspace.questions.filter((q) => placesWithin(q, workspace.selection.stretch().from, workspace.selection.stretch().to).length > 0)
      : []
  );

  /** The selected bars as the reading plays them, for as many as one reads. */
  const MOST_BARS = 4;
  const played = $derived.by(() => {
    const plan = workspace.playing.performed?.plan;
    if (!score || !plan) return [];
    return plan.bars
      .flatMap((b, k) => (b.measure >= selection.from && b.measure <= selection.to && b.pass === 0 ? [k] : []))
      .slice(0, MOST_BARS)
      .flatMap((k) => {
        const bar = plan.bars[k];
        const beats = plan.beats.filter((x) => x.measure === bar.measure && x.pass === bar.pass).length;
        const name = selection.from === selection.to ? 'As played' : workspace.barName(score.measures[bar.measure]);
        return [`${name}: ${explainTime(bar, bar.literal / Math.max(1, beats))}`, explainLoudness(plan.loudness[k])];
      });
  });

  /** The caution is read once in a visit; after that it stands in the guide. */
  const CAUTIONED = 'nuvelo-cautioned';
  let cautioned = $state(false);
  $effect(() => {
    if (kept(CAUTIONED, 'this visit')) return;
    cautioned = true;
    keep(CAUTIONED, 'yes', 'this visit');
  });

  let scope = $state<Scope>('bars');
  const SCOPE_NAMES: Record<Scope, string> = {
    bars: 'of these bars',
    phrase: 'of this phrase',
    section: 'of this section',
    kind: 'of these kinds',
    rule: 'by these rules'
  };
  const reached = $derived.by(() => {
    if (!score || !open.length) return [];
    const { from, to } = workspace.selection.stretch();
    return inScope(
      workspace.study.proposals.filter((p) => !workspace.decisionOf(p.key)),
      workspace.facts,
      scope,
      from,
      to
    );
  });

  /** One act for all that the chosen scope reaches. */
  function decideAll(keep: boolean): void {
    workspace.act({
      type: 'together',
      what: `${keep ? 'keeping' : 'setting aside'} ${reached.length} ${reached.length === 1 ? 'proposal' : 'proposals'}`,
      commands: reached.map((p) =>
        keep ? { type: 'keep', key: p.key, marking: { ...p.marking, id: `mark-${nanoid()}` } } : { type: 'set-aside', key: p.key }
      )
    });
  }

  /** The brief as plain text: the first draft of the instructor's own words. */
  function draft(): string {
    if (!text) return '';
    const todo = markings.map(
      (m) =>
        `${markingName(m)}: ${workspace
          .reasonsOf(m)
          .map((b) => b.text)
          .join(' ')}`
    );
    return [
      ['What it is', text.whatItIs],
      ['What the page says', text.whatThePageSays],
      ['What to do', todo],
      ['How long and how loud', text.howLongAndLoud],
      ['How to practise', text.howToPractise]
    ]
      .filter(([, lines]) => lines.length)
      .map(([heading, lines]) => `${heading as string}\n${(lines as string[]).join('\n')}`)
      .join('\n\n');
  }

  function printBrief(): void {
    document.documentElement.dataset.printing = 'brief';
    addEventListener('afterprint', () => delete document.documentElement.dataset.printing, { once: true });
    print();
  }
</script>

<aside class="brief side-panel" aria-label="Brief of the selected bars">
  {#if score && text}
    <header>
      <h2 data-testid="brief-title">{title}</h2>
      <Act class="not-printed" onclick={printBrief}>Print</Act>
      {#if workspace.study.busy}<span class="quiet" role="status">working it out …</span>{/if}
    </header>
    <InPrint
      paper={workspace.data.paper}
      bar={workspace.selection.from}
      name={workspace.barName(score.measures[workspace.selection.from])}
    />

    <section>
      <h3>What it is</h3>
      <ul>
        {#each text.whatItIs as line, k (k)}<li>{line}</li>{/each}
      </ul>
    </section>

    <section>
      <h3>What the page says</h3>
      {#if text.whatThePageSays.length}<ul>
          {#each text.whatThePageSays as line, k (k)}<li>{line}</li>{/each}
        </ul>{:else}<p class="quiet">Notes only; no sign.</p>{/if}
    </section>

    <section class="do">
      <h3>What to do</h3>
      {#each markings as marking (marking.id)}<MarkingItem {workspace} {marking} />{/each}
      {#each open as proposal (proposal.key)}<ProposalItem {workspace} {proposal} />{/each}
      {#if open.length}
        <div class="scope not-printed" data-testid="scope">
          <Choice label="All {reached.length} proposals" bind:value={scope}
            >{#each SCOPES as s (s)}<SelectItem value={s} text={SCOPE_NAMES[s]} />{/each}</Choice
          >
          <Act onclick={() => decideAll(true)}>Keep them</Act>
          <Act onclick={() => decideAll(false)}>Set them aside</Act>
        </div>
      {/if}
      <CopyMarkings {workspace} />
      <MarkMany {workspace} />
      {#if !markings.length && !open.length}<p class="quiet">Nothing is marked or proposed here.</p>{/if}
      {#if aside.length}
        <Fold label="{aside.length} set aside">
          {#each aside as proposal (proposal.key)}<ProposalItem {workspace} {proposal} />{/each}
        </Fold>
      {/if}
      <div class="not-printed"><MarkingForm {workspace} /></div>
    </section>

    <Ossias {workspace} />
    <HowItLies {workspace} />
    <Ornaments {workspace} />

    {#if questions.length}
      <section class="not-printed">
        <h3>Where musicians differ</h3>
        {#each questions as question (question.key)}<QuestionCard {workspace} {question} />{/each}
      </section>
    {/if}

    <section>
      <h3>How long and how loud</h3>
      <ul>
        {#each text.howLongAndLoud as line, k (k)}<li>{line}</li>{/each}
        {#each played as line, k (k)}<li data-testid="as-played">{line}</li>{/each}
      </ul>
    </section>

    <section>
      <h3>How to practise</h3>
      <ul>
        {#each text.howToPractise as line, k (k)}<li>{line}</li>{/each}
      </ul>
      <Drills {workspace} />
      {#if cautioned}<p class="care">{CAUTIONS.always}</p>{/if}
    </section>
    <WrittenBrief {workspace} {draft} />
  {/if}
</aside>

<style>
  section {
    padding-top: 0.7rem;
  }

  h3 {
    color: var(--muted);
    padding-bottom: 0.15rem;
  }

  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }

  li {
    padding: 0.1rem 0 0.1rem 0.7rem;
    text-indent: -0.7rem;
  }

  .do :global(.item) {
    margin: 0.35rem 0;
  }

  .care {
    font-size: 0.82rem;
    color: var(--muted);
    padding-top: 0.4rem;
  }

  .scope {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: baseline;
    font-size: 0.9rem;
    padding: 0.2rem 0;
  }
</style>
