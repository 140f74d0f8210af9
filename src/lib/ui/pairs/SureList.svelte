<script lang="ts">
  import { speaksFor } from '$lib/core/twins/likeness/reasons.ts';
  import { formatDate } from '$lib/ui/messages.ts';
  import { reasonText } from './pairMessages.ts';
  import type { PairsState, ShownPair } from './pairsState.svelte.ts';

  let { view }: { view: PairsState } = $props();

  /** Rows that are drawn at first, and more each time. */
  const MORE = 100;
  let most = $state(MORE);

  /** The three that tell most. */
  const because = (pair: ShownPair) =>
    pair.reasons
      .filter((reason) => speaksFor(reason))
      .slice(0, 3)
      .map(reasonText)
      .join(' · ');
</script>

<ul class="flex flex-col" aria-label="Sure pairs">
  {#each view.sure.slice(0, most) as pair (pair.id)}
    {@const isChosen = !view.skipped.has(pair.id)}
    <li
      class="grid grid-cols-[1.5rem_minmax(0,1fr)_auto] items-center gap-x-2 gap-y-0.5 border-b border-line px-2 py-1.5 md:grid-cols-[1.5rem_minmax(0,1fr)_minmax(0,1fr)_auto]"
    >
      <input
        type="checkbox"
        class="size-4"
        checked={isChosen}
        aria-label="Pair “{pair.videoItem.title}” with “{pair.postItem.title}”"
        onchange={() => view.toggle(pair)}
      />
      <a
        class="min-w-0 border-l-4 border-video pl-2"
        href={pair.videoItem.url}
        target="_blank"
        rel="noreferrer"
      >
        <span class="sr-only">Video:</span>
        <span class="line-clamp-2 text-sm leading-tight font-semibold">{pair.videoItem.title}</span>
        <span class="block text-xs text-quiet">{formatDate(pair.videoItem.published)}</span>
      </a>
      <button
        class="bare btn btn-sm md:order-1"
        onclick={() => view.decide([pair], 'none')}
        aria-label="“{pair.videoItem.title}” and “{pair.postItem.title}” are not a pair"
        >Not a pair</button
      >
      <a
        class="col-start-2 min-w-0 border-l-4 border-post pl-2 md:col-start-auto"
        href={pair.postItem.url}
        target="_blank"
        rel="noreferrer"
      >
        <span class="sr-only">Post:</span>
        <span class="line-clamp-2 text-sm leading-tight font-semibold">{pair.postItem.title}</span>
        <span class="block text-xs text-quiet">{formatDate(pair.postItem.published)}</span>
      </a>
      <p class="col-[2/4] text-xs text-quiet md:order-2 md:col-[2/5]">
        {because(pair)}
      </p>
    </li>
  {/each}
</ul>
{#if view.sure.length > most}
  <button class="plain btn self-start btn-sm" onclick={() => (most += MORE)}
    >Show more ({view.sure.length - most} left)</button
  >
{/if}
