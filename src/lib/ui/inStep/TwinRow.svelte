<script lang="ts">
  import { tick } from 'svelte';
  import type { Twin } from '$lib/core/model/twin.ts';
  import type { PublishedUpdate } from '$lib/data/publishedUpdates.ts';
  import ItemCard from '$lib/ui/ItemCard.svelte';
  import Tie from '$lib/ui/Tie.svelte';
  import { reasonMessage, standingLabels } from '$lib/ui/messages.ts';
  import NextStep from './NextStep.svelte';

  interface Props {
    twin: Twin;
    index: number;
    isCurrent: boolean;
    isSelected: boolean;
    /** What was told at networks, by item. */
    told: ReadonlyMap<string, PublishedUpdate[]>;
    onfocus: () => void;
    /** @param isRange with all rows from the one that was selected last */
    onselect: (isRange: boolean) => void;
    ondrift: () => void;
  }
  let { twin, index, isCurrent, isSelected, told, onfocus, onselect, ondrift }: Props = $props();
  async function pick(event: MouseEvent & { currentTarget: HTMLInputElement }) {
    const box = event.currentTarget;
    onselect(event.shiftKey);
    await tick();
    // A row within a range stays selected, though the press unticked its box.
    box.checked = isSelected;
  }
  const name = $derived(twin.video?.title ?? twin.post?.title ?? '');
</script>

<div
  role="row"
  tabindex={isCurrent ? 0 : -1}
  aria-rowindex={index + 1}
  aria-selected={isSelected}
  aria-label="{name}: {standingLabels[twin.standing]}"
  data-row={index}
  class="row grid h-full gap-x-1 rounded-container px-1 py-1 {isSelected ? 'bg-marked' : ''}"
  {onfocus}
>
  <div role="gridcell" class="pick flex items-center justify-center">
    <input
      type="checkbox"
      class="size-4"
      checked={isSelected}
      tabindex="-1"
      aria-label="Select {name}"
      onclick={pick}
    />
  </div>
  <div role="gridcell" class="video min-w-0">
    {#if twin.video}<ItemCard
        half={twin.video}
        side="video"
        told={told.get(twin.video.id)}
      />{:else}<NextStep {twin} side="video" />{/if}
  </div>
  <div role="gridcell" class="tie flex min-w-0 flex-col items-center justify-center">
    <Tie standing={twin.standing} quiet />
    {#if twin.standing === 'drifted'}
      <button
        class="text-sm font-semibold underline"
        onclick={ondrift}
        tabindex="-1"
        title={reasonMessage(twin.reason)}
      >
        Drifted: compare
      </button>
    {:else}
      <span class="text-sm font-semibold" title={reasonMessage(twin.reason)}
        >{standingLabels[twin.standing]}</span
      >
    {/if}
  </div>
  <div role="gridcell" class="post min-w-0">
    {#if twin.post}<ItemCard
        half={twin.post}
        side="post"
        told={told.get(twin.post.id)}
        others={twin.otherPosts.length}
      />{:else}<NextStep {twin} side="post" />{/if}
  </div>
</div>

<style>
  .row {
    grid-template-columns: 1.75rem minmax(0, 1fr) 6.5rem minmax(0, 1fr);
    grid-template-areas: 'pick video tie post';
  }
  .row[aria-selected='true'] {
    --row: var(--marked);
  }
  .row:focus-visible {
    outline-offset: -2px;
  }
  .pick {
    grid-area: pick;
  }
  .video {
    grid-area: video;
  }
  .tie {
    grid-area: tie;
  }
  .post {
    grid-area: post;
  }
  @media (width < 48rem) {
    .row {
      grid-template-columns: 1.75rem minmax(0, 1fr);
      grid-template-rows: 3.9rem 1.9rem 3.9rem;
      grid-template-areas: 'pick video' 'tie tie' 'post post';
    }
    .tie {
      flex-direction: row;
      gap: 0.5rem;
    }
    .tie :global(svg) {
      height: 1.25rem;
      width: 3.75rem;
    }
    .post {
      padding-left: 2rem;
    }
  }
</style>
