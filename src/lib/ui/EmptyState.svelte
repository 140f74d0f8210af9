<script lang="ts">
  import type { Snippet } from 'svelte';

  let { title, children, actions }: { title: string; children?: Snippet; actions?: Snippet } =
    $props();
</script>

<section class="mx-auto flex max-w-lg flex-col items-start gap-3 px-4 py-10">
  <h2 class="text-lg font-semibold">{title}</h2>
  {#if children}<div class="text-quiet">{@render children()}</div>{/if}
  {#if actions}<div class="flex flex-wrap gap-2 pt-1">{@render actions()}</div>{/if}
</section>
