<script lang="ts">
  import ExternalLink from '@lucide/svelte/icons/external-link';
  import type { Half } from '$lib/core/model/twin.ts';
  import type { PublishedUpdate } from '$lib/data/publishedUpdates.ts';
  import { publishedMessage } from './updateMessages.ts';
  import Thumbnail from './Thumbnail.svelte';
  import TimeCode from './TimeCode.svelte';
  import { plural, formatDateTime, formatDate } from './messages.ts';

  interface Props {
    half: Half;
    side: 'video' | 'post';
    /** What was told of it at networks. */
    told?: readonly PublishedUpdate[];
    /** Further posts about the same video. */
    others?: number;
  }
  let { half, side, told = [], others = 0 }: Props = $props();
</script>

<article
  class="flex h-full min-w-0 items-center gap-3 overflow-hidden border bg-sheet {side === 'video'
    ? 'border-l-4 border-l-video'
    : 'border-r-4 border-r-post'} rounded-container border-line py-1.5 pr-2 pl-2"
>
  {#if side === 'video'}
    <span class="relative h-[45px] w-20 shrink-0 overflow-hidden rounded-base">
      {#if half.picture}
        <Thumbnail url={half.picture.url} class="h-full w-full" />
      {:else}
        <span class="block h-full w-full bg-line"></span>
      {/if}
      {#if half.duration !== null}
        <span
          class="absolute right-0.5 bottom-0.5 rounded-base bg-black/80 px-1 text-xs text-white"
        >
          <TimeCode seconds={half.duration} />
        </span>
      {/if}
    </span>
  {/if}
  <div class="min-w-0 flex-1">
    <p
      class="line-clamp-2 text-sm leading-tight font-semibold"
      title={half.title}
      lang={half.language || undefined}
    >
      {half.title}
    </p>
    <p class="flex gap-2 text-xs text-quiet *:min-w-0 *:truncate">
      {#if half.visibility === 'scheduled' && half.date}
        <span class="shrink-0 max-sm:hidden">{formatDateTime(half.date)}</span>
        <span class="shrink-0 sm:hidden">{formatDate(half.date)}</span>
      {:else}
        <span class="shrink-0">{formatDate(half.date)}</span>
      {/if}
      {#if half.visibility !== 'public'}
        <span class="shrink-0 font-semibold">{half.visibility}</span>
      {/if}
      {#if side === 'video' && !half.hasCaptions}
        <span class={half.visibility === 'public' ? '' : 'max-sm:hidden'}>no captions</span>
      {/if}
      {#if half.isMade}<span>made here</span>{/if}
      {#if others > 0}<span>and {plural(others, 'more post', 'more posts')}</span>{/if}
      {#if told.length > 0}
        <a
          href="/updates/{half.id}"
          class="truncate underline"
          tabindex="-1"
          title={told.map(publishedMessage).join('\n')}
          >shared at {plural(new Set(told.map((t) => t.placeId)).size, 'place', 'places')}</a
        >
      {/if}
    </p>
  </div>
  {#if half.url}
    <a
      class="bare btn-icon shrink-0 btn-icon-sm"
      href={half.url}
      target="_blank"
      rel="noreferrer"
      aria-label="Open “{half.title}” at its place"
      title="Open at its place"><ExternalLink aria-hidden="true" /></a
    >
  {/if}
</article>
