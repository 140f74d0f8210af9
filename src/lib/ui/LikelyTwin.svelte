<script lang="ts">
  import type { Item } from '$lib/core/model/item.ts';
  import { itemsByIds } from '$lib/data/items.ts';
  import { surelyPaired } from '$lib/work/pairs.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  /** Of what the other half is being made. */
  let { id }: { id: string } = $props();
  /** What nothing ties to it yet, though it surely is its other half. */
  let other = $state.raw<Item | null>(null);

  $effect(() => {
    const asked = id;
    other = null;
    if (!asked) return;
    void attempt(async () => {
      const found = (await surelyPaired([asked])).get(asked);
      const item = found && (await itemsByIds([found])).get(found);
      if (item && asked === id) other = item;
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
