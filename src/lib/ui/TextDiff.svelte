<script lang="ts">
  import { textChanges } from '$lib/core/article/edit/merge.ts';

  /** Plain text, as it is and as it would be. */
  let { before, after }: { before: string; after: string } = $props();
  const parts = $derived(textChanges(before, after));
  /** What comes in place of something else is kept apart from it. */
  const isGlued = (k: number) =>
    parts[k]?.is === 'in' && parts[k - 1]?.is === 'out' && !/\s$/.test(parts[k - 1]?.text ?? '');
</script>

{#each parts as part, k (k)}{isGlued(k) ? ' ' : ''}{#if part.is === 'in'}<ins class="bg-marked"
      >{part.text}</ins
    >{:else if part.is === 'out'}<del class="text-quiet">{part.text}</del
    >{:else}{part.text}{/if}{/each}
