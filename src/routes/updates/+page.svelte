<script lang="ts">
  import { db } from '$lib/data/db.ts';
  import { toldByItem } from '$lib/data/told.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import Held from '$lib/ui/updates/Held.svelte';
  import { toldWords } from '$lib/ui/updateWords.ts';
  import { dateWords } from '$lib/ui/words.ts';

  /** Twins shown at first. */
  const FIRST = 60;
  const twins = live(() => () => db.twins.orderBy('date').reverse().limit(FIRST).toArray());
  const networks = live(
    () => async () => new Map((await db.networks.toArray()).map((n) => [n.id, n.title]))
  );
  const told = live(() => toldByItem);
</script>

<svelte:head><title>Updates · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-5xl flex-col gap-3 p-4">
    <h1 class="text-lg font-semibold">Updates</h1>
    <p class="text-sm text-quiet">
      Choose what to tell. Each item becomes a short text, a poll or a quiz, in words that fit each
      place.
    </p>
    <Held networks={networks.value ?? new Map()} />
    {#if twins.value?.length === 0}
      <EmptyState title="There is nothing to tell yet">
        <p>Updates are made from uploads and posts.</p>
        {#snippet actions()}<a class="strong btn btn-sm" href="/places">Link a place</a>{/snippet}
      </EmptyState>
    {/if}
    <ul class="flex flex-col gap-1" aria-label="Items">
      {#each twins.value ?? [] as twin (twin.id)}
        {@const halves = [twin.video, twin.post].filter((half) => half !== null)}
        <li class="rounded-container border border-line bg-sheet p-2">
          <p class="font-semibold">{halves[0]?.title}</p>
          <ul class="flex flex-wrap gap-x-4 text-sm">
            {#each halves as half (half.id)}
              <li>
                <a
                  href="/updates/{half.id}"
                  aria-label="{half === twin.video
                    ? 'Tell of the video'
                    : 'Tell of the post'}: {half.title}"
                  >{half === twin.video ? 'Tell of the video' : 'Tell of the post'}</a
                >
                <span class="text-quiet">{dateWords(half.date)}</span>
                {#each told.value?.get(half.id) ?? [] as update (update.form + update.placeId)}
                  <span class="text-quiet">· {toldWords(update)}</span>
                {/each}
              </li>
            {/each}
          </ul>
        </li>
      {/each}
    </ul>
  </div>
</div>
