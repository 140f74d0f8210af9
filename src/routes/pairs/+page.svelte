<script lang="ts">
  import { onMount } from 'svelte';
  import { videosToRead } from '$lib/data/unpaired.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import DecidedList from '$lib/ui/pairs/DecidedList.svelte';
  import DoubtfulPair from '$lib/ui/pairs/DoubtfulPair.svelte';
  import { PairsState } from '$lib/ui/pairs/pairsState.svelte.ts';
  import SureList from '$lib/ui/pairs/SureList.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  const view = new PairsState();
  onMount(() => view.begin());
  const unread = live(() => videosToRead);
  /** Doubtful pairs that are drawn at first, and more each time. */
  const MORE = 20;
  let most = $state(MORE);
</script>

<svelte:head><title>Find pairs · Swift Twin</title></svelte:head>

<div class="mx-auto flex h-full max-w-5xl flex-col gap-3 overflow-y-auto px-3 py-3">
  <header class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <h1 class="text-lg font-semibold">Find pairs</h1>
    {#if view.pairs}
      <p class="text-sm text-quiet">
        {plural(view.counts.videos, 'video has', 'videos have')} no post, {plural(
          view.counts.posts,
          'post has',
          'posts have'
        )} no video.
      </p>
    {/if}
    <span class="ml-auto flex gap-2">
      {#if (unread.value?.length ?? 0) > 0}
        <button
          class="plain btn btn-sm"
          onclick={() => view.readCaptions()}
          title="What is said tells more than a title. More pairs will be sure."
          >Read captions of {plural(unread.value?.length ?? 0, 'video', 'videos')}</button
        >
      {/if}
      <a class="bare btn btn-sm" href="/">Back to In step</a>
    </span>
  </header>
  {#if view.problem}<ProblemNote problem={view.problem} />{/if}
  {#if view.pairs === null}
    {#if !view.problem}<p class="text-quiet" role="status">Comparing videos and posts…</p>{/if}
  {:else if view.pairs.length === 0}
    <EmptyState title="No more pairs found">
      <p>
        {view.counts.videos === 0 || view.counts.posts === 0
          ? 'Pairs are looked for where videos have no post and posts have no video.'
          : 'The videos and posts that are left seem to be about different things.'}
      </p>
    </EmptyState>
  {:else}
    {#if view.sure.length > 0}
      <!-- While it may still change, nobody pairs what they have not seen. -->
      <section class="flex flex-col gap-1" aria-labelledby="sure" aria-busy={view.isLooking}>
        <div class="flex flex-wrap items-center gap-3">
          <h2 id="sure" class="font-semibold">Sure ({view.sure.length})</h2>
          <button
            class="strong btn btn-sm"
            disabled={view.chosen.length === 0}
            aria-disabled={view.isLooking}
            onclick={() => view.isLooking || view.decide(view.chosen, 'twin')}
            >{view.chosen.length === view.sure.length
              ? `Pair all ${view.sure.length}`
              : `Pair ${view.chosen.length} of ${view.sure.length}`}</button
          >
          {#if view.isLooking}<span class="text-sm text-quiet">Comparing videos and posts…</span
            >{/if}
        </div>
        <SureList {view} />
      </section>
    {/if}
    {#if view.doubtful.length > 0}
      <section class="flex flex-col gap-2" aria-labelledby="doubtful">
        <h2 id="doubtful" class="font-semibold">To check ({view.doubtful.length})</h2>
        <ul class="flex flex-col gap-2" aria-label="Pairs to check">
          {#each view.doubtful.slice(0, most) as pair (pair.id)}
            <DoubtfulPair {view} {pair} />
          {/each}
        </ul>
        {#if view.doubtful.length > most}
          <button class="plain btn self-start btn-sm" onclick={() => (most += MORE)}
            >Show more</button
          >
        {/if}
      </section>
    {/if}
  {/if}
  <DecidedList />
</div>
