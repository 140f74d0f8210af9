<script lang="ts">
  import type { MakeFinding } from '$lib/core/delivery/outbox.ts';
  import { makeFindingMessage } from '$lib/ui/laneMessages.ts';

  let { findings }: { findings: readonly MakeFinding[] } = $props();
</script>

{#if findings.length > 0}
  <ul class="list-disc pl-5 text-sm" aria-label="To check">
    {#each findings as finding, i (i)}
      <li class={finding.level === 'look' ? 'text-quiet' : ''}>
        {finding.level === 'blocking' ? 'Blocked: ' : ''}{makeFindingMessage(finding)}
      </li>
    {/each}
  </ul>
{/if}
