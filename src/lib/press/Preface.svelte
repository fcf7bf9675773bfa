<script lang="ts">
  import Act from '$lib/controls/Act.svelte';
  import { untrack } from 'svelte';
  import { Editor, type JSONContent } from '@tiptap/core';
  import StarterKit from '@tiptap/starter-kit';
  import { Button } from 'carbon-components-svelte';
  import type { RichText } from '$core/reading/rich-text';
  import type { Workspace } from '../workspace/workspace.svelte';

  /** `draft` is the preface as it can be drafted; null while that is worked out. */
  const { workspace, draft }: { workspace: Workspace; draft: RichText | null } = $props();

  /** A pause in typing after which what was typed is saved. */
  const PAUSE_MS = 700;

  let host = $state<HTMLDivElement>();
  /** Bound to the field: it goes and comes back with it, as while a new draft is worked out. */
  let editor: Editor | null = null;
  /** Counts the editor's changes, so that the buttons show what is chosen. */
  let version = $state(0);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const own = $derived(workspace.reading.preface);
  const text = $derived(own ?? draft);
  /** What the editor holds, as it was last saved or taken in. */
  let held = '';

  $effect(() => {
    const element = host;
    if (!element) return;
    untrack(() => start(element));
    return () => {
      save();
      editor?.destroy();
      editor = null;
    };
  });

  $effect(() => {
    const now = JSON.stringify(text);
    // What came from elsewhere (undo, another window, a new draft) is taken in, but never over what is being typed.
    if (!editor || !text || now === held || timer) return;
    held = now;
    editor.commands.setContent(text, { emitUpdate: false });
  });

  $effect(() => {
    const leave = () => save();
    addEventListener('pagehide', leave);
    return () => removeEventListener('pagehide', leave);
  });

  function start(element: HTMLElement): void {
    held = JSON.stringify(text);
    editor = new Editor({
      element,
      content: text,
      injectCSS: false,
      extensions: [
        StarterKit.configure({
          heading: { levels: [2, 3] },
          code: false,
          codeBlock: false,
          strike: false,
          link: false,
          underline: false,
          horizontalRule: false,
          trailingNode: false
        })
      ],
      editorProps: {
        attributes: { 'aria-label': 'Preface', role: 'textbox', 'aria-multiline': 'true' },
        transformPastedHTML: bare
      },
      onUpdate: () => {
        clearTimeout(timer);
        timer = setTimeout(save, PAUSE_MS);
      },
      onBlur: save,
      onTransaction: () => version++
    });
  }

  /** What is pasted keeps its words and paragraphs; attributes and everything that is no text go. */
  function bare(html: string): string {
    // Handlers go before anything reads them.
    const quiet = html.replace(/\son\w+\s*=\s*(?:"[^"]*"|'[^']*'|[^\s>]+)/gi, '');
    const pasted = new DOMParser().parseFromString(quiet, 'text/html');
    for (const e of pasted.querySelectorAll('script, style, img, iframe, object, svg, video, audio')) e.remove();
    for (const e of pasted.querySelectorAll('*')) for (const name of e.getAttributeNames()) e.removeAttribute(name);
    return pasted.body.innerHTML;
  }

  function save(): void {
    if (!timer || !editor) return;
    clearTimeout(timer);
    timer = undefined;
    const now = JSON.stringify(plainRecord(editor.getJSON() as JSONContent));
    if (now === held) return;
    held = now;
    workspace.act({ type: 'write-preface', text: JSON.parse(now) as RichText });
  }

  /** Only what the preface may hold: the editor adds attributes of its own. */
  function plainRecord({ type, text: words, marks, attrs, content }: JSONContent): object {
    return {
      type,
      ...(words === undefined ? {} : { text: words }),
      ...(marks?.length ? { marks: marks.map((m) => ({ type: m.type })) } : {}),
      ...(type === 'heading' ? { attrs: { level: Number((attrs as { level?: number } | undefined)?.level ?? 2) } } : {}),
      ...(content ? { content: content.map(plainRecord) } : {})
    };
  }

  function again(): void {
    clearTimeout(timer);
    timer = undefined;
    workspace.act({ type: 'write-preface', text: null });
  }

  type Tool = [name: string, on: () => boolean, run: () => void];
  const TOOLS: Tool[] = [
    ['Heading', () => !!editor?.isActive('heading', { level: 2 }), () => editor?.chain().focus().toggleHeading({ level: 2 }).run()],
    ['Bold', () => !!editor?.isActive('bold'), () => editor?.chain().focus().toggleBold().run()],
    ['Italic', () => !!editor?.isActive('italic'), () => editor?.chain().focus().toggleItalic().run()],
    ['List', () => !!editor?.isActive('bulletList'), () => editor?.chain().focus().toggleBulletList().run()],
    ['Numbered', () => !!editor?.isActive('orderedList'), () => editor?.chain().focus().toggleOrderedList().run()],
    ['Quote', () => !!editor?.isActive('blockquote'), () => editor?.chain().focus().toggleBlockquote().run()]
  ];
  const active = $derived.by(() => {
    void version;
    return TOOLS.map(([, on]) => on());
  });
</script>

{#if text}
  <div class="tools" role="toolbar" aria-label="Form of the text">
    {#each TOOLS as [name, , run], k (name)}<Act
        aria-pressed={active[k]}
        onmousedown={(e: MouseEvent) => e.preventDefault()}
        onclick={() => run()}>{name}</Act
      >{/each}
  </div>
  <div class="text" bind:this={host} data-testid="preface"></div>
  <p class="quiet">
    {#if own}In your own words. <Button size="small" kind="ghost" on:click={again}>Draft it again</Button>{:else}Drafted from what is known;
      it keeps up with the reading until you write into it.{/if}
    The list of signs follows by itself.
  </p>
{:else}
  <p class="quiet" role="status">The preface is being drafted …</p>
{/if}

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    padding: 0.6rem 0 0.4rem;
  }

  .text :global(.ProseMirror) {
    min-height: 20rem;
    padding: 0.6rem 0.8rem;
    background: var(--raised);
    border: 1px solid var(--line);
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }

  .text :global(.ProseMirror :is(p, h2, h3, ul, ol, blockquote)) {
    margin: 0 0 0.45rem;
  }

  .text :global(.ProseMirror :is(ul, ol)) {
    padding-left: 1.1rem;
  }

  .text :global(.ProseMirror ul) {
    list-style: disc;
  }

  .text :global(.ProseMirror ol) {
    list-style: decimal;
  }

  .text :global(.ProseMirror li p) {
    margin: 0;
  }

  .text :global(.ProseMirror em) {
    font-style: italic;
  }

  .text :global(.ProseMirror strong) {
    font-weight: 650;
  }

  .text :global(.ProseMirror blockquote) {
    border-left: 2px solid var(--line);
    padding-left: 0.7rem;
  }

  p {
    padding-top: 0.5rem;
    font-size: 0.9rem;
  }
</style>
