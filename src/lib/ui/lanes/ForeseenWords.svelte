<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { isTooNarrow } from '$lib/core/lanes/rate.ts';
  import { rateMessage } from '$lib/ui/laneMessages.ts';
  import type { Foreseen } from '$lib/workers/lanesApi.ts';

  let { lane, foreseen }: { lane: Lane; foreseen: Foreseen } = $props();
</script>

<p>
  {rateMessage(foreseen.rate, foreseen.passes)}
  {#if foreseen.passes === 0}
    <strong>Nothing matches, so nothing would be made.</strong>
  {:else if isTooNarrow(foreseen.rate, lane.pace.perDay)}
    <strong>That is too narrow for {lane.pace.perDay} a day: days will pass with nothing.</strong>
  {/if}
</p>
