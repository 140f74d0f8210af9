<script lang="ts">
  import type { Twin } from '$lib/core/model/twin.ts';
  import { reasonMessage } from '$lib/ui/messages.ts';

  let { twin, side }: { twin: Twin; side: 'video' | 'post' } = $props();
  /** Nothing is to be made for now: it comes by itself, or what is gone is to be looked at first. */
  const isWaiting = $derived(
    twin.standing === 'drifted' || ['premiere', 'post-is-gone'].includes(twin.reason.kind)
  );
</script>

<div
  class="flex h-full min-w-0 items-center gap-2 rounded-container border border-dashed border-edge px-3 text-sm"
>
  {#if twin.standing === 'set-aside' || isWaiting}
    <span class="truncate text-quiet">{reasonMessage(twin.reason)}</span>
  {:else if side === 'post' && twin.video}
    <a class="plain btn btn-sm" href="/desk/{twin.video.id}" tabindex="-1">
      {twin.standing === 'in-hand' ? 'Continue the post' : 'Make the post'}
    </a>
    <span class="hidden truncate text-quiet xl:inline">
      {twin.standing === 'in-hand' ? reasonMessage(twin.reason) : ''}
    </span>
  {:else if twin.post}
    <a class="plain btn btn-sm" href="/booth/{twin.post.id}" tabindex="-1">
      {twin.standing === 'in-hand' ? 'Continue the video' : 'Make the video'}
    </a>
    <span class="hidden truncate text-quiet xl:inline">
      {twin.standing === 'in-hand' ? reasonMessage(twin.reason) : ''}
    </span>
  {/if}
</div>
