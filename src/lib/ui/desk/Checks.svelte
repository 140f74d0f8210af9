<script lang="ts">
  import CircleAlert from '@lucide/svelte/icons/circle-alert';
  import Eye from '@lucide/svelte/icons/eye';
  import { findingMessage, whereMessage } from '$lib/ui/messages.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
</script>

<section aria-labelledby="checks-title" class="flex flex-col gap-1">
  <h2 id="checks-title" class="font-semibold">
    {desk.findings.length === 0 ? 'Nothing to check' : 'To check'}
  </h2>
  <ul class="flex flex-col gap-1 text-sm">
    {#each desk.findings as finding, i (i)}
      <li class="flex gap-2">
        {#if finding.level === 'wrong'}
          <CircleAlert
            class="mt-0.5 size-4 shrink-0 text-error-600 dark:text-error-400"
            aria-label="Wrong"
          />
        {:else}
          <Eye class="mt-0.5 size-4 shrink-0 text-quiet" aria-label="Worth checking" />
        {/if}
        <span
          ><span class="font-semibold">{whereMessage(finding)}:</span>
          {findingMessage(finding)}</span
        >
      </li>
    {/each}
  </ul>
</section>
