<script lang="ts">
  import ExternalLink from '@lucide/svelte/icons/external-link';
  import { pictureFor, type Item } from '$lib/core/model/item.ts';
  import Thumbnail from '$lib/ui/Thumbnail.svelte';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import { formatDate } from '$lib/ui/messages.ts';

  let { item, side, text }: { item: Item; side: 'video' | 'post'; text: string } = $props();
  const picture = $derived(pictureFor(item.pictures, 160));
</script>

<article
  class="flex min-w-0 flex-col gap-1 border-l-4 bg-sheet py-1 pr-1 pl-2 {side === 'video'
    ? 'border-video'
    : 'border-post'}"
>
  <div class="flex items-start gap-2">
    {#if picture}
      <Thumbnail url={picture.url} class="h-[45px] w-20 shrink-0 rounded-base" />
    {/if}
    <div class="min-w-0 flex-1">
      <h3 class="text-sm leading-tight font-semibold" lang={item.language || undefined}>
        {item.title}
      </h3>
      <p class="text-xs text-quiet">
        {side === 'video' ? 'Video' : 'Post'} · {formatDate(item.published)}
        {#if item.duration !== null}· <TimeCode seconds={item.duration} />{/if}
      </p>
    </div>
    {#if item.url}
      <a
        class="bare btn-icon shrink-0 btn-icon-sm"
        href={item.url}
        target="_blank"
        rel="noreferrer"
        aria-label="Open “{item.title}” at its place"
        title="Open at its place"><ExternalLink aria-hidden="true" /></a
      >
    {/if}
  </div>
  {#if text}
    <p class="reading line-clamp-4 text-sm" lang={item.language || undefined}>{text}</p>
  {:else}
    <p class="text-sm text-quiet">
      {side === 'video'
        ? 'No description, and no captions read yet.'
        : 'The feed has no text of it.'}
    </p>
  {/if}
  {#if item.tags.length > 0}<p class="text-xs text-quiet">{item.tags.join(' · ')}</p>{/if}
</article>
