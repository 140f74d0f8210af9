<script lang="ts">
  import { generateHTML, generateJSON } from '@tiptap/core';
  import { changesSince, takePieces, type MergePart } from '$lib/core/article/edit/merge.ts';
  import { readable } from '$lib/ui/changes/readable.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import TextDiff from '$lib/ui/TextDiff.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import type { Desk } from './deskState.svelte.ts';
  import { extensions } from './editorExtensions.ts';

  let { desk }: { desk: Desk } = $props();
  let dialog = $state<HTMLDialogElement>();

  const normal = (html: string) => generateHTML(generateJSON(html, extensions), extensions);
  function blocksOf(html: string): string[] {
    const template = document.createElement('template');
    template.innerHTML = html;
    return [...template.content.children].map((child) => child.outerHTML);
  }
  const fresh = $derived(desk.edited && desk.made ? normal(desk.made.marked) : '');
  // A text that came from the blog is written as the blog writes it.
  const base = $derived(desk.edited ? normal(desk.edited.base) : '');
  const mine = $derived(desk.edited ? blocksOf(normal(desk.edited.html)) : []);
  const pieces = $derived(
    desk.edited && fresh !== base ? changesSince(blocksOf(base), mine, blocksOf(fresh)) : []
  );
  const textOf = (blocks: readonly string[]) => blocks.map(readable).join('\n');
  const before = (piece: MergePart) => textOf(mine.slice(piece.from, piece.to));

  /** A change that comes while they are looked at begins anew: ticks are of what is shown. */
  let ticked = $derived(pieces.map((p) => !p.isTouched));

  function take() {
    if (!desk.edited) return;
    const chosen = pieces.filter((_, i) => ticked[i]);
    const html = takePieces(mine, chosen).join('');
    desk.edited = html === fresh ? null : { base: fresh, html };
    dialog?.close();
    deck.say(
      `${plural(chosen.length, 'change', 'changes')} applied; the rest of your text is as it was.`
    );
  }

  function startAnew() {
    desk.edited = null;
    dialog?.close();
  }
</script>

{#if desk.edited}
  <div class="flex flex-wrap items-center gap-2 text-sm" role="status">
    <span>
      Edited by hand.
      {pieces.length > 0
        ? `The layout or the talk would change ${plural(pieces.length, 'place', 'places')}.`
        : ''}
    </span>
    {#if pieces.length > 0}
      <button class="plain btn btn-sm" onclick={() => dialog?.showModal()}
        >Review the changes</button
      >
    {/if}
    <button class="bare btn btn-sm" onclick={startAnew}>Back to the generated text</button>
  </div>
{/if}
<dialog
  bind:this={dialog}
  aria-labelledby="changes-title"
  class="m-auto max-h-[85vh] w-[min(46rem,94vw)] overflow-y-auto rounded-container border border-edge bg-sheet p-4 text-ink backdrop:bg-black/50"
>
  <h2 id="changes-title" class="pb-2 text-lg font-semibold">
    What regenerating the text would change
  </h2>
  <ul class="flex flex-col gap-3">
    {#each pieces as piece, i (i)}
      <li class="rounded-base border border-line p-2">
        <label class="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={ticked[i]}
            onchange={(event) => (ticked = ticked.with(i, event.currentTarget.checked))}
          />
          Apply this{piece.isTouched ? ': it would replace what you wrote there' : ''}
        </label>
        <p class="reading pt-1 text-sm whitespace-pre-line">
          <TextDiff before={before(piece)} after={textOf(piece.fresh)} />
        </p>
      </li>
    {/each}
  </ul>
  <div class="flex flex-wrap gap-2 pt-3">
    <button class="strong btn btn-sm" disabled={!ticked.some(Boolean)} onclick={take}
      >Apply the ticked changes</button
    >
    <button class="bare btn btn-sm" onclick={() => dialog?.close()}>Leave my text as it is</button>
  </div>
</dialog>
