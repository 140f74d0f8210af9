<script lang="ts">
  import type { Twin } from '$lib/core/model/twin.ts';
  import { reasonWords } from '$lib/ui/words.ts';

  let { twin, side }: { twin: Twin; side: 'video' | 'post' } = $props();
  const isComing = $derived(twin.reason.kind === 'premiere');
</script>

<div
  class="border-edge flex h-full min-w-0 items-center gap-2 rounded-container border border-dashed px-3 text-sm"
>
  {#if twin.standing === 'set-aside'}
    <span class="text-quiet truncate">{reasonWords(twin.reason)}</span>
  {:else if side === 'post' && twin.video}
    {#if isComing}
      <span class="text-quiet truncate">{reasonWords(twin.reason)}</span>
    {:else}
      <a class="btn btn-sm plain" href="/desk/{twin.video.id}" tabindex="-1">
        {twin.standing === 'in-hand' ? 'Go on with the post' : 'Make the post'}
      </a>
      <span class="text-quiet hidden truncate xl:inline">
        {twin.standing === 'in-hand' ? reasonWords(twin.reason) : ''}
      </span>
    {/if}
  {:else}
    <span class="text-quiet truncate">No video shows this post.</span>
  {/if}
</div>
