<script lang="ts">
  import type { TwinReason } from '$lib/core/model/twin.ts';
  import { changeMessage } from '$lib/ui/driftMessages.ts';
  import { formatDate } from '$lib/ui/messages.ts';

  let { reason }: { reason: TwinReason } = $props();
  const changes = $derived(reason.kind === 'differs' ? reason.changes : []);
  const differences = $derived(reason.kind === 'differs' ? reason.differences : []);
</script>

<ul class="flex flex-col gap-1.5 text-sm" aria-label="What changed">
  {#each differences as { video, post } (video)}
    <li>
      <dl class="grid grid-cols-[4rem_1fr] gap-x-3 gap-y-1">
        <dt class="border-l-4 border-video pl-2">Video</dt>
        <dd class="font-semibold">{video}</dd>
        <dt class="border-l-4 border-post pl-2">Post</dt>
        <dd class="font-semibold">{post}</dd>
      </dl>
    </li>
  {/each}
  {#each changes as change (`${change.side} ${change.what}`)}
    <li class="border-l-4 pl-2 {change.side === 'video' ? 'border-video' : 'border-post'}">
      {changeMessage(change)}
      {#if change.on}<span class="text-quiet">· {formatDate(change.on)}</span>{/if}
    </li>
  {/each}
</ul>
