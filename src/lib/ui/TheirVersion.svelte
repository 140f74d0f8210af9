<script lang="ts">
  import { diffWordsWithSpace } from 'diff';
  import type { Held } from '$lib/core/delivery/outbox.ts';
  import type { PostPayload } from '$lib/core/delivery/payload.ts';
  import { htmlText } from '$lib/core/text/html.ts';

  interface Props {
    /** What stands at the blog. */
    theirs: Pick<Held, 'title' | 'html' | 'status'>;
    /** What would go out, or did last. */
    ours: Pick<PostPayload, 'title' | 'html' | 'status'> | null;
    onkeep: () => unknown;
    /** Without it there is nothing to send. */
    onoverwrite?: () => unknown;
  }
  let { theirs, ours, onkeep, onoverwrite }: Props = $props();

  /** Words that are the same are cut short between differences. */
  const CONTEXT = 60;
  const short = (text: string, isFirst: boolean, isLast: boolean) =>
    text.length <= 2 * CONTEXT
      ? text
      : `${isFirst ? '' : text.slice(0, CONTEXT)} … ${isLast ? '' : text.slice(-CONTEXT)}`;
  const plain = (html: string) => htmlText(html).replace(/\n{3,}/g, '\n\n');
  const parts = $derived(ours ? diffWordsWithSpace(plain(ours.html), plain(theirs.html)) : []);
  const isSameText = $derived(parts.every((part) => !part.added && !part.removed));
</script>

<section
  aria-label="Changed at the blog"
  class="flex flex-col gap-2 rounded-base border border-l-4 border-edge border-l-post bg-sheet p-2 text-sm"
>
  <p role="alert" class="font-semibold">
    The post was changed at the blog. Nothing was overwritten.
  </p>
  {#if ours && ours.title !== theirs.title}
    <p>Title here: “{ours.title}”. Title at the blog: “{theirs.title}”.</p>
  {/if}
  {#if ours && (ours.status === 'draft') !== (theirs.status === 'draft')}
    <p>
      {theirs.status === 'draft'
        ? 'At the blog it is a draft.'
        : 'At the blog it is no longer a draft.'}
    </p>
  {/if}
  {#if isSameText}
    <p class="text-quiet">The words are the same; links, tags or details differ.</p>
  {:else}
    <p
      class="reading max-h-60 overflow-y-auto rounded-base border border-line p-2 text-sm whitespace-pre-wrap"
      role="group"
      aria-label="What differs: crossed out is this version, underlined is the blog’s"
    >
      {#each parts as part, i (i)}{#if part.removed}<del class="text-quiet">{part.value}</del
          >{:else if part.added}<ins class="bg-marked">{part.value}</ins>{:else}{short(
            part.value,
            i === 0,
            i === parts.length - 1
          )}{/if}{/each}
    </p>
    <p class="text-quiet">Crossed out: this version. Underlined: the blog’s.</p>
  {/if}
  <p class="flex flex-wrap gap-2">
    <button class="plain btn btn-sm" onclick={onkeep}>Keep the blog’s version</button>
    {#if onoverwrite}
      <button class="plain btn btn-sm" onclick={onoverwrite}>Overwrite with this version</button>
    {/if}
  </p>
</section>
