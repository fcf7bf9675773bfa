<script lang="ts">
  import { SelectItem } from 'carbon-components-svelte';
  import { BREATH_RANGE, MOST_FINGERINGS, REACH_RANGE, type Player } from '$core/players/player';
  import { parsePitch } from '$core/score/pitch';
  import { breathSeconds } from '$core/style/breath';
  import { TUBES } from '$core/style/brass';
  import { INSTRUMENTS, instrumentByKey, UNKNOWN_INSTRUMENT, type InstrumentKey } from '$core/style/instruments/index';
  import { can } from '$core/style/instruments/instrument';
  import { KEYBOARD } from '$core/style/keyboard-fingers';
  import { windChart } from '$core/technique/wind-fingers';
  import Act from '../controls/Act.svelte';
  import Choice from '../controls/Choice.svelte';
  import Field from '../controls/Field.svelte';

  interface Props {
    player: Player;
    change: (change: Partial<Player>) => void;
    remove: () => void;
  }
  const { player, change, remove }: Props = $props();

  const byName = [...INSTRUMENTS].sort((a, b) => a.name.localeCompare(b.name));
  const instrument = $derived(instrumentByKey(player.instrument ?? '') ?? UNKNOWN_INSTRUMENT);
  const anything = $derived(player.instrument === null);
  const breathes = $derived(anything || can(instrument, 'breathes', 'sings'));
  const hands = $derived(anything || can(instrument, 'keys'));
  const fingered = $derived(windChart(instrument.key) !== undefined || instrument.key in TUBES);
  const example = $derived(instrument.key in TUBES ? (TUBES[instrument.key][0].by === 'slide' ? '4' : '13') : '1235');
  /** What was typed and cannot be, by field. */
  let wrong = $state<Partial<Record<'breath' | 'reach' | 'lowest' | 'highest' | 'pitch', string>>>({});

  let pitch = $state('');
  let fingering = $state('');

  function number(field: 'breath' | 'reach', text: string, { least, most }: { least: number; most: number }): void {
    const value = text.trim() === '' ? null : Number(text.replace(',', '.'));
    const fits = value === null || (value >= least && value <= most);
    wrong = { ...wrong, [field]: fits ? undefined : `A number from ${least} to ${most}, or nothing.` };
    if (fits) change({ [field]: value });
  }

  function range(field: 'lowest' | 'highest', text: string): void {
    const value = text.trim() || null;
    const fits = value === null || parsePitch(value) !== null;
    wrong = { ...wrong, [field]: fits ? undefined : 'A letter, an accidental if it has one, and an octave: F#4.' };
    if (fits) change({ [field]: value });
  }

  function addFingering(): void {
    if (!parsePitch(pitch)) {
      wrong = { ...wrong, pitch: 'A letter, an accidental if it has one, and an octave: F#4.' };
      return;
    }
    const name = pitch.trim();
    wrong = { ...wrong, pitch: undefined };
    change({ fingerings: [...player.fingerings.filter((f) => f.pitch !== name), { pitch: name, fingering: fingering.trim() }] });
    pitch = fingering = '';
  }
</script>

{#snippet fault(text: string | undefined)}{#if text}<span class="wrong" role="alert">{text}</span>{/if}{/snippet}

<section data-testid="player" aria-label={player.name}>
  <div class="head">
    <Field label="Name" value={player.name} maxlength="80" onchange={(name) => name.trim() && change({ name: name.trim() })} />
    <Choice
      label="plays the"
      value={player.instrument ?? ''}
      onchange={(key) => change({ instrument: key ? (key as InstrumentKey) : null })}
    >
      <SelectItem value="" text="any instrument" />
      {#each byName as { key, name } (key)}<SelectItem value={key} text={name} />{/each}
    </Choice>
    <Act onclick={remove} aria-label="Take {player.name} away">Take away</Act>
  </div>
  <dl>
    {#if breathes}
      <dt>
        <Field
          label="Seconds on one breath"
          value={player.breath ?? ''}
          placeholder={anything ? '' : `${breathSeconds(instrument.key)}`}
          onchange={(text) => number('breath', text, BREATH_RANGE)}
          inputmode="decimal"
        />
      </dt>
      <dd>
        At <em>mf</em> in the middle register. Changes where breaths are proposed, and where Proof says that the air does not last.
        {@render fault(wrong.breath)}
      </dd>
    {/if}
    {#if hands}
      <dt>
        <Field
          label="Semitones that a hand spans"
          value={player.reach ?? ''}
          placeholder={`${KEYBOARD.reach}`}
          onchange={(text) => number('reach', text, REACH_RANGE)}
          inputmode="numeric"
        />
      </dt>
      <dd>
        An octave is 12, a tenth 16. Changes which chords are shared between the hands, rolled or asked about.
        {@render fault(wrong.reach)}
      </dd>
    {/if}
    <dt class="two">
      <Field label="Sure from" value={player.lowest ?? ''} placeholder="G3" onchange={(t) => range('lowest', t)} />
      <Field label="to" value={player.highest ?? ''} placeholder="D6" onchange={(t) => range('highest', t)} />
    </dt>
    <dd>
      As they sound. Proof names the notes outside.
      {@render fault(wrong.lowest)}{@render fault(wrong.highest)}
    </dd>
    {#if fingered}
      <dt class="two">
        <Field label="Own fingering of" bind:value={pitch} placeholder="F#5" maxlength="5" />
        <Field
          label="is"
          bind:value={fingering}
          placeholder={example}
          maxlength="40"
          onkeydown={(e: KeyboardEvent) => e.key === 'Enter' && addFingering()}
        />
        <Act onclick={addFingering} disabled={!pitch.trim() || player.fingerings.length >= MOST_FINGERINGS}>Add</Act>
      </dt>
      <dd>
        The written note, and what is held down. It stands in the place of the usual one.
        {@render fault(wrong.pitch)}
        {#if player.fingerings.length}
          <ul>
            {#each player.fingerings as f (f.pitch)}
              <li>
                {f.pitch}: {f.fingering || 'nothing held'}
                <Act
                  onclick={() => change({ fingerings: player.fingerings.filter((o) => o !== f) })}
                  aria-label="Take the fingering of {f.pitch} away">take away</Act
                >
              </li>
            {/each}
          </ul>
        {/if}
      </dd>
    {/if}
  </dl>
</section>

<style>
  section {
    border-top: 1px solid var(--line);
    padding: 0.9rem 0;
  }

  .head,
  .two {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1rem;
  }

  .head :global(.labelled:first-child) {
    font-weight: 600;
  }

  dl {
    display: grid;
    grid-template-columns: 24rem 1fr;
    gap: 0.5rem 1.2rem;
    margin: 0.7rem 0 0;
    align-items: center;
  }

  dt :global(.bx--text-input) {
    width: 5.5rem;
  }

  dd {
    margin: 0;
    color: var(--muted);
  }

  ul {
    list-style: none;
    padding: 0;
    margin: 0.3rem 0 0;
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.2rem;
    color: var(--ink);
  }

  .wrong {
    color: var(--cds-danger-01);
  }

  @media (max-width: 700px) {
    dl {
      grid-template-columns: 1fr;
    }
  }
</style>
