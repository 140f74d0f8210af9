<script lang="ts">
  import { textChanges } from '$lib/core/article/edit/merge.ts';

  /** Plain text, as it is and as it would be. */
  let { before, after }: { before: string; after: string } = $props();
  const parts = $derived(textChanges(before, after));
</script>

{#each parts as part, k (k)}{#if part.is === 'in'}<ins class="bg-marked">{part.text}</ins
    >{:else if part.is === 'out'}<del class="text-quiet">{part.text}</del
    >{:else}{part.text}{/if}{/each}
