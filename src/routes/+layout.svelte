<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import 'carbon-components-svelte/css/all.css';
  import '../app.css';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { FirstVisit } from '$lib/help/first-visit.svelte';
  import Explain from '$lib/help/Explain.svelte';
  import FirstVisitBar from '$lib/help/FirstVisitBar.svelte';
  import HelpDialog from '$lib/help/HelpDialog.svelte';
  import { keep, kept } from '$lib/kept';
  import { ROOM_KEYS, roomAddress, ROOMS } from '$lib/rooms';
  import { sharedEngraver } from '$lib/music/engraver';
  import { prepareStudyWorker } from '$lib/workspace/study-worker';

  const { children } = $props();

  const visit = new FirstVisit();
  let helping = $state(false);
  /** The piece with which a first visit goes through the rooms: the open one, else the last on the shelf, which the demo came first to. */
  const companion = $derived<number | string | null>(page.params.id ?? page.data.pieces?.at(-1)?.id ?? null);

  function key(event: KeyboardEvent): void {
    if (event.key !== '?' || (event.target instanceof HTMLElement && event.target.closest('input, textarea, select, [contenteditable]')))
      return;
    event.preventDefault();
    helping = true;
  }

  let theme = $state('light');
  /** The rooms keep to the reading that is open. */
  const reading = $derived(page.url.searchParams.get('reading'));
  const room = $derived(page.url.pathname.split('/')[3]);

  onMount(() => {
    // From here on the page reacts; before, it is only the server's picture of itself.
    document.documentElement.dataset.ready = 'true';
    sharedEngraver();
    prepareStudyWorker();
    visit.begin();
    theme = kept('nuvelo-theme') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light');
  });

  $effect(() => {
    document.documentElement.dataset.theme = theme;
  });

  /** Pages of practice that are kept for being without a connection go with who signs out. */
  function forgetPages(): void {
    void globalThis.caches?.keys().then((names) => names.filter((n) => n.startsWith('practice-')).map((n) => caches.delete(n)));
  }

  function turn(): void {
    theme = theme === 'dark' ? 'light' : 'dark';
    keep('nuvelo-theme', theme);
  }
</script>

<svelte:head><title>{page.data.piece ? `${page.data.piece.title} · ` : ''}Nuvelo</title></svelte:head>

<svelte:window onkeydown={key} />

<div class="frame">
  <header class="top not-printed">
    <a class="name" href="/">Nuvelo</a>
    {#if page.url.pathname !== '/login'}<nav aria-label="Rooms">
        <a href="/" aria-current={page.url.pathname === '/' ? 'page' : undefined}>Shelf</a>
        <a href="/write" aria-current={/^\/(?:write|type)\b/.test(page.url.pathname) ? 'page' : undefined}>Write</a>
        <a href="/players" aria-current={page.url.pathname === '/players' ? 'page' : undefined}>Players</a>
        <a href="/practice" aria-current={page.url.pathname.startsWith('/practice') ? 'page' : undefined}>Practice</a>
        <a href="/rules" aria-current={page.url.pathname === '/rules' ? 'page' : undefined}>Rules</a>
        {#if page.params.id && page.route.id?.startsWith('/pieces/')}
          {#each ROOM_KEYS as key (key)}
            <a href={roomAddress(page.params.id, key, reading)} aria-current={room === key ? 'page' : undefined}>{ROOMS[key].name}</a>
          {/each}
        {/if}
      </nav>{/if}
    {#if page.data.piece}<p class="piece">
        <strong>{page.data.piece.title}</strong> <span class="quiet">{page.data.piece.composer}</span>
      </p>{/if}
    <span class="right">
      {#if page.data.signedIn}<form method="POST" action="/logout" onsubmit={forgetPages}><Act type="submit">Sign out</Act></form>{/if}
      {#if page.url.pathname !== '/login'}<Act onclick={() => (helping = true)} title="?">Help</Act>{/if}
      <Act onclick={turn}>{theme === 'dark' ? 'Light' : 'Dark'} page</Act>
    </span>
  </header>
  <div>
    {#if visit.at !== null && companion !== null && page.url.pathname !== '/login'}<FirstVisitBar
        {visit}
        piece={companion}
        here={page.url.pathname === '/' ? 'shelf' : room}
      />{/if}
  </div>
  <main>{@render children()}</main>
</div>
<Explain />
{#if helping}<HelpDialog onclose={() => (helping = false)} ontour={() => (visit.again(), void goto('/'))} />{/if}

<style>
  .frame {
    height: 100%;
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    grid-template-columns: minmax(0, 1fr);
  }

  @media print {
    .frame {
      display: block;
      height: auto;
    }
  }

  .top {
    display: flex;
    align-items: baseline;
    gap: 1.5rem;
    padding: 0.4rem 1rem;
    border-bottom: 1px solid var(--line);
    background: var(--paper);
    white-space: nowrap;
  }

  .name {
    font-family: var(--heading-face);
    font-size: 1.2rem;
    color: var(--ink);
    text-decoration: none;
  }

  nav {
    display: flex;
    gap: 1.1rem;
  }

  nav a {
    color: var(--muted);
    text-decoration: none;
    padding: 0.15rem 0;
    border-bottom: 2px solid transparent;
  }

  nav a:hover {
    color: var(--ink);
  }

  nav a[aria-current='page'] {
    color: var(--ink);
    border-bottom-color: var(--edition);
  }

  .piece {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    text-align: right;
  }

  .right {
    margin-left: auto;
    display: flex;
    gap: 1rem;
  }

  main {
    min-height: 0;
  }

  @media (max-width: 700px) {
    .top {
      flex-wrap: wrap;
      gap: 0.2rem 1rem;
    }

    nav {
      flex-wrap: wrap;
      gap: 0 0.9rem;
    }

    .piece {
      display: none;
    }
  }

  @media print {
    .frame {
      display: block;
      height: auto;
    }
  }
</style>
