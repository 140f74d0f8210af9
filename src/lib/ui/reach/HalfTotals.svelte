<script lang="ts">
  import { formatDate } from '$lib/ui/messages.ts';
  import type { HalfReach } from '$lib/work/reach/twinReach.ts';
  import { shownTotals } from './twinReachState.svelte.ts';

  let { half }: { half: HalfReach } = $props();
  const isVideo = $derived(half.item.kind === 'video');
  const totals = $derived(shownTotals(half.row));
</script>

<section
  class="border-l-3 pl-3 {isVideo ? 'border-video' : 'border-dashed border-post'}"
  aria-label={isVideo ? 'Video' : 'Post'}
>
  <p class="text-sm text-quiet">
    {isVideo ? 'Video' : 'Post'}, {formatDate(half.item.published)}
  </p>
  <p class="wrap-anywhere">
    <a class="underline" href={half.item.url} target="_blank" rel="noreferrer noopener"
      >{half.item.title}</a
    >
  </p>
  {#if totals.length > 0}
    <dl class="flex flex-wrap items-baseline gap-x-4 text-sm">
      {#each totals as { label, total } (label)}
        <div class="flex items-baseline gap-1.5">
          <dt class="text-quiet">{label}</dt>
          <dd class="figures font-semibold">{total.toLocaleString('en')}</dd>
        </div>
      {/each}
      {#if half.row.stars !== null}
        <div class="flex items-baseline gap-1.5">
          <dt class="text-quiet">Average rating</dt>
          <dd class="figures font-semibold">{Math.round(half.row.stars * 100)} %</dd>
        </div>
      {/if}
    </dl>
  {:else}
    <p class="text-sm text-quiet">
      {isVideo ? 'Its channel tells no figures.' : 'Nothing is known yet. Import the access log.'}
    </p>
  {/if}
</section>
