<script lang="ts">
  import type { DropReason } from '$lib/core/lanes/filter.ts';
  import { dropMessage } from '$lib/ui/laneMessages.ts';

  let { reason }: { reason: DropReason } = $props();
</script>

<span class="text-quiet"
  >{dropMessage(reason)}{#if reason.kind === 'likely-twin'}<a class="ml-1 underline" href="/pairs"
      >Find pairs</a
    >{/if}</span
>
