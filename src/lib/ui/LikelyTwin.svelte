<script lang="ts">
  import type { Item } from '$lib/core/model/item.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { pairsWorker } from '$lib/workers/pairs.ts';

  /** Of what the other half is being made. */
  let { id }: { id: string } = $props();
  /** What nothing ties to it yet, though it surely is its other half. */
  let other = $state.raw<Item | null>(null);

  $effect(() => {
    const asked = id;
    other = null;
    if (!asked) return;
    void attempt(() => pairsWorker().surelyPaired([asked])).then(({ value }) => {
      if (asked === id) other = value?.get(asked) ?? null;
    });
  });
</script>

{#if other}
  <p class="rounded-container border border-edge bg-sheet p-3 text-sm" role="status">
    {other.kind === 'post'
      ? `“${other.title}” at your blog seems to be about this video already.`
      : `“${other.title}” at your channel seems to tell of this post already.`}
    <a class="underline" href="/pairs">Find pairs</a>
  </p>
{/if}
