<script lang="ts">
  import BetweenHorizontalStart from '@lucide/svelte/icons/between-horizontal-start';
  import Bold from '@lucide/svelte/icons/bold';
  import Heading2 from '@lucide/svelte/icons/heading-2';
  import Italic from '@lucide/svelte/icons/italic';
  import Link2 from '@lucide/svelte/icons/link-2';
  import List from '@lucide/svelte/icons/list';
  import ListX from '@lucide/svelte/icons/list-x';
  import ListOrdered from '@lucide/svelte/icons/list-ordered';
  import Play from '@lucide/svelte/icons/play';
  import Quote from '@lucide/svelte/icons/quote';
  import { createDocument, Editor } from '@tiptap/core';
  import { addRowAfter, deleteRow } from '@tiptap/pm/tables';
  import { Selection } from '@tiptap/pm/state';
  import { onMount, untrack } from 'svelte';
  import { timeCode } from '$lib/core/chapters/chapter.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import type { Desk } from './deskState.svelte.ts';
  import { extensions, pointedKey } from './editorExtensions.ts';

  let { desk }: { desk: Desk } = $props();
  let element = $state<HTMLDivElement>();
  let editor = $state.raw<Editor | null>(null);
  /** Grows with every change of text or selection, so that the tool bar follows. */
  let turn = $state(0);
  /** The block under the pointer or the caret, its seconds, and how far down it stands. */
  let spot = $state.raw<{ start: number; end: number; top: number } | null>(null);

  const made = $derived(desk.made?.marked ?? '');
  /** The text as it stands in the editor, and as it was made when editing began. */
  let shown = '';
  let began = '';
  /** The HTML of the layout that stands in the editor, before the editor wrote it in its own way. */
  let laid = '';

  onMount(() => {
    const made = new Editor({
      element: element ?? null,
      extensions,
      // The policy of the page allows no style sheets put in by scripts; app.css has what is needed.
      injectCSS: false,
      content: desk.edited?.html ?? desk.made?.marked ?? '',
      editorProps: {
        attributes: {
          class: 'reading text',
          role: 'textbox',
          'aria-multiline': 'true',
          'aria-label': 'Text of the post',
          lang: desk.video?.language ?? ''
        }
      },
      onUpdate: ({ editor: now }) => keepSoon(now),
      onBlur: keepNow,
      onTransaction: () => untrack(() => turn++),
      onSelectionUpdate: ({ editor: now }) => {
        if (!now.isFocused) return;
        const { node } = now.view.domAtPos(now.state.selection.from);
        follow(node instanceof Element ? node : node.parentElement);
      }
    });
    toFirstWord(made);
    shown = made.getHTML();
    began = shown;
    laid = desk.edited ? '' : (desk.made?.marked ?? '');
    editor = made;
    desk.settle = keepNow;
    desk.rewrite = (change) => rewrite(made, change);
    return () => {
      keepNow();
      desk.settle = null;
      desk.rewrite = null;
      made.destroy();
    };
  });

  /** Puts the caret before the first word; else the video would be chosen, and writing would replace it. */
  function toFirstWord(now: Editor) {
    const { doc, tr } = now.state;
    const first = Selection.findFrom(doc.resolve(0), 1, true);
    if (first) now.view.dispatch(tr.setSelection(first).setMeta('addToHistory', false));
  }

  /** Puts other content in, and nothing where it is the same: so the caret stays by its words. */
  function show(now: Editor, html: string) {
    const { doc, tr, schema } = now.state;
    const next = createDocument(html, schema);
    const start = doc.content.findDiffStart(next.content);
    const end = doc.content.findDiffEnd(next.content);
    if (start === null || !end) return;
    const overlap = Math.max(0, start - Math.min(end.a, end.b));
    tr.replace(start, end.a + overlap, next.slice(start, end.b + overlap));
    if (tr.doc.eq(next)) now.view.dispatch(tr.setMeta('preventUpdate', true));
    else now.commands.setContent(html, { emitUpdate: false });
    if (!now.isFocused) toFirstWord(now);
  }

  let waiting: { timer: ReturnType<typeof setTimeout>; editor: Editor } | null = null;
  /** A long text is not written out at every key, but a few times a second. */
  function keepSoon(now: Editor) {
    waiting ??= { editor: now, timer: setTimeout(keepNow, 150) };
  }
  function keepNow() {
    if (!waiting) return;
    clearTimeout(waiting.timer);
    const { editor: now } = waiting;
    waiting = null;
    keep(now.getHTML());
  }

  async function rewrite(now: Editor, change: (html: string) => Promise<string>) {
    for (;;) {
      const before = now.getHTML();
      const html = await change(before);
      // What was typed in the meantime is changed as well.
      if (now.isDestroyed) return;
      if (now.getHTML() !== before) continue;
      show(now, html);
      keep(now.getHTML());
      return;
    }
  }

  /** Keeps what is written, beside what it was made as. */
  function keep(html: string) {
    if (html === shown) return;
    shown = html;
    const base = desk.edited?.base ?? began;
    desk.edited = html === base ? null : { base, html };
  }

  // While nothing is edited, the text follows the layout and the talk.
  $effect(() => {
    const html = desk.edited?.html ?? made;
    const now = untrack(() => editor);
    const stands = html === shown || (html === laid && shown === began);
    if (!now || stands) return;
    // A frame later, when the other columns have followed; what is being written comes first.
    const frame = requestAnimationFrame(() => {
      if (waiting) return;
      show(now, html);
      shown = now.getHTML();
      if (!desk.edited) [began, laid] = [shown, html];
    });
    return () => cancelAnimationFrame(frame);
  });
  /**
   * What is pointed at in the transcript lights up here. What is pointed at in the text itself is lit
   * by its style, as is the paragraph that holds the caret: a change of the view between a click and the editor's reading of it would put the
   * caret back to where it was before.
   */
  const fromTranscript = $derived(desk.pointed?.by === 'transcript' ? desk.pointed : null);
  $effect(() => {
    const pointed = fromTranscript;
    if (!editor) return;
    const { view, state } = editor;
    untrack(() =>
      view.dispatch(state.tr.setMeta(pointedKey, pointed).setMeta('addToHistory', false))
    );
    if (pointed) view.dom.querySelector('.lit')?.scrollIntoView({ block: 'nearest' });
  });

  function follow(target: Element | null) {
    const block = target?.closest<HTMLElement>('[data-start]');
    if (!block || !element?.contains(block)) return;
    const [start, end] = [Number(block.dataset.start), Number(block.dataset.end)];
    const top = block.getBoundingClientRect().top - element.getBoundingClientRect().top;
    if (spot?.start === start && spot.top === top) return;
    spot = { start, end, top };
    if (block.tagName !== 'H2') desk.pointed = { start, end, by: 'text' };
  }

  function leave() {
    desk.pointed = null;
  }

  const is = (name: string, attributes?: Record<string, unknown>) => {
    void turn;
    return editor?.isActive(name, attributes) ?? false;
  };
  const chain = () => editor?.chain().focus();

  let linkAddress = $state<string | null>(null);
  function openLink() {
    linkAddress = String(editor?.getAttributes('link').href ?? '');
  }
  function setLink() {
    const href = linkAddress?.trim() ?? '';
    const range = chain()?.extendMarkRange('link');
    if (!href) range?.unsetLink().run();
    else if (URL.canParse(href)) range?.setLink({ href }).run();
    else return deck.say('A link needs a whole address, beginning with https://.');
    linkAddress = null;
  }

  interface Tool {
    label: string;
    icon: typeof Bold;
    /** Whether it has any use where the caret is. */
    when?: () => boolean;
    on: () => boolean | undefined;
    run: () => unknown;
  }
  const tools: Tool[] = [
    {
      label: 'Heading',
      icon: Heading2,
      on: () => is('heading', { level: 2 }),
      run: () => chain()?.toggleHeading({ level: 2 }).run()
    },
    { label: 'Bold', icon: Bold, on: () => is('bold'), run: () => chain()?.toggleBold().run() },
    {
      label: 'Italic',
      icon: Italic,
      on: () => is('italic'),
      run: () => chain()?.toggleItalic().run()
    },
    {
      label: 'List',
      icon: List,
      on: () => is('bulletList'),
      run: () => chain()?.toggleBulletList().run()
    },
    {
      label: 'Numbered list',
      icon: ListOrdered,
      on: () => is('orderedList'),
      run: () => chain()?.toggleOrderedList().run()
    },
    {
      label: 'Quotation',
      icon: Quote,
      on: () => is('blockquote'),
      run: () => chain()?.toggleBlockquote().run()
    },
    {
      label: 'Add row',
      icon: BetweenHorizontalStart,
      when: () => is('table'),
      on: () => undefined,
      run: () =>
        chain()
          ?.command(({ state, dispatch }) => addRowAfter(state, dispatch))
          .run()
    },
    {
      label: 'Delete row',
      icon: ListX,
      when: () => is('table'),
      on: () => undefined,
      run: () =>
        chain()
          ?.command(({ state, dispatch }) => deleteRow(state, dispatch))
          .run()
    },
    { label: 'Link', icon: Link2, on: () => is('link'), run: openLink }
  ];
</script>

<div class="rounded-container border border-line bg-sheet">
  <div
    role="toolbar"
    aria-label="Text"
    class="sticky top-0 z-10 flex flex-wrap items-center gap-0.5 rounded-t-container border-b border-line bg-sheet px-2 py-1 lg:-top-3"
  >
    {#each tools as { label, icon: Icon, on, run, when } (label)}
      {#if when?.() ?? true}
        <button
          class="bare btn-icon btn-icon-sm aria-pressed:bg-marked"
          aria-label={label}
          title={label}
          aria-pressed={on()}
          onclick={run}><Icon aria-hidden="true" /></button
        >
      {/if}
    {/each}
    <span class="mx-1 h-5 border-l border-line" aria-hidden="true"></span>
    <UndoButtons autosave={desk.autosave} />
    {#if spot}
      {@const at = spot}
      <button
        class="plain ml-auto btn btn-sm"
        onclick={() => desk.video && deck.play(desk.video, at.start)}
      >
        <Play aria-hidden="true" />Play <span class="times">{timeCode(at.start)}</span>
      </button>
    {/if}
    {#if linkAddress !== null}
      <form
        class="flex w-full items-center gap-2 py-1"
        onsubmit={(event) => {
          event.preventDefault();
          setLink();
        }}
      >
        <label class="sr-only" for="link-address">Address of the link</label>
        <input
          id="link-address"
          class="field"
          placeholder="https://… or nothing for no link"
          bind:value={linkAddress}
        />
        <button class="plain btn btn-sm">Set</button>
        <button type="button" class="bare btn btn-sm" onclick={() => (linkAddress = null)}
          >Leave</button
        >
      </form>
    {/if}
  </div>
  <div class="relative px-3 py-3 sm:pr-4 sm:pl-12">
    {#if spot}
      {@const at = spot}
      <button
        class="bare absolute left-1.5 btn-icon btn-icon-sm max-sm:hidden"
        style:top="{at.top + 10}px"
        aria-label="Play these seconds, from {timeCode(at.start)}"
        title="Play from {timeCode(at.start)}"
        tabindex="-1"
        onclick={() => desk.video && deck.play(desk.video, at.start)}
        ><Play aria-hidden="true" /></button
      >
    {/if}
    <!-- The pointer only lights up what the caret lights up as well. -->
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      bind:this={element}
      onmouseover={(event) => follow(event.target as Element)}
      onfocus={() => {}}
      onmouseleave={leave}
    ></div>
  </div>
</div>
