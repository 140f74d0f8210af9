<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { placeTitles } from '$lib/data/places.ts';
  import { newestTwins } from '$lib/data/twins.ts';
  import { publishedByItem } from '$lib/data/publishedUpdates.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import LongList from '$lib/ui/LongList.svelte';
  import Held from '$lib/ui/updates/InReview.svelte';
  import { publishedMessage } from '$lib/ui/updateMessages.ts';
  import { formatDate } from '$lib/ui/messages.ts';
  import Thumbnail from '$lib/ui/Thumbnail.svelte';

  /** Twins that are read first, so that something is seen at once. */
  const FIRST = 60;
  const newest = live(() => () => newestTwins(FIRST));
  const all = live(() => {
    const isShown = newest.value !== undefined;
    return () => (isShown ? newestTwins() : undefined);
  });
  const twins = $derived(all.value ?? newest.value);
  let words = $state('');
  const shown = $derived.by(() => {
    const wanted = words.trim().toLowerCase();
    if (!wanted) return twins ?? [];
    return (twins ?? []).filter(({ video, post }) =>
      [video, post].some((half) => half?.title.toLowerCase().includes(wanted))
    );
  });
  let scroller = $state<HTMLElement>();
  const networks = live(() => placeTitles);
  const told = live(() => publishedByItem);
</script>

<svelte:head><title>Updates · Swift Twin</title></svelte:head>

<div bind:this={scroller} class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-6xl flex-col gap-3 p-4">
    <h1 class="text-lg font-semibold">Updates</h1>
    <p class="text-sm text-quiet">
      Choose what to share. Each item becomes a short text, a poll or a quiz, in words that fit each
      place.
    </p>
    <Held networks={networks.value ?? new Map()} />
    {#if twins?.length === 0}
      <EmptyState title="Nothing to share yet">
        <p>Updates are made from uploads and posts.</p>
        {#snippet actions()}<a class="strong btn btn-sm" href="/places">Connect a channel or blog</a
          >{/snippet}
      </EmptyState>
    {/if}
    {#if twins?.length}
      <label class="flex items-center gap-2 text-sm"
        >Filter <input class="field w-64" type="search" bind:value={words} placeholder="Title" />
        <span class="text-quiet" role="status"
          >{words.trim() ? `${shown.length} of ${twins.length}` : ''}</span
        ></label
      >
      {#if shown.length === 0}<p class="text-sm text-quiet">No matching items.</p>{/if}
    {/if}
    <LongList
      role="list"
      label="Items"
      items={shown}
      keyOf={(twin) => twin.id}
      height={68}
      {scroller}
    >
      {#snippet row(twin)}
        {@const halves = [twin.video, twin.post].filter((half) => half !== null)}
        {@const picture = (twin.video ?? twin.post)?.picture}
        {@const shared = halves.flatMap((half) => told.value?.get(half.id) ?? []).length}
        <div class="mb-1 flex gap-3 rounded-container border border-line bg-sheet p-2">
          <span class="h-12 w-20 shrink-0 overflow-hidden rounded-base bg-line">
            {#if picture}
              <Thumbnail url={picture.url} class="h-full w-full" />
            {/if}
          </span>
          <div class="min-w-0 flex-1">
            <p class="flex items-baseline gap-2">
              <span class="line-clamp-1 font-semibold" title={halves[0]?.title}
                >{halves[0]?.title}</span
              >
              {#if shared > 0}<span class="flex shrink-0 items-center gap-1 text-sm"
                  ><Check class="size-4" aria-hidden="true" />shared</span
                >{/if}
            </p>
            <ul class="flex flex-wrap gap-x-4 text-sm">
              {#each halves as half (half.id)}
                <li>
                  <a
                    href="/updates/{half.id}"
                    aria-label="{half === twin.video
                      ? 'Share the video'
                      : 'Share the post'}: {half.title}"
                    >{half === twin.video ? 'Share the video' : 'Share the post'}</a
                  >
                  <span class="text-quiet">{formatDate(half.date)}</span>
                  {#each told.value?.get(half.id) ?? [] as update (update.form + update.placeId)}
                    <span class="text-quiet">· {publishedMessage(update)}</span>
                  {/each}
                </li>
              {/each}
            </ul>
          </div>
        </div>
      {/snippet}
    </LongList>
  </div>
</div>
