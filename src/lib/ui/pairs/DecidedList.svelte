<script lang="ts">
  import type { Tie } from '$lib/core/model/tie.ts';
  import { itemsByIds } from '$lib/data/items.ts';
  import { allTies } from '$lib/data/ties.ts';
  import { undecide } from '$lib/work/pairs.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDate } from '$lib/ui/messages.ts';
  import { relationLabels } from './pairMessages.ts';

  const decided = live(() => async () => {
    const ties = await allTies();
    const items = await itemsByIds(ties.flatMap((t) => [t.video, t.post]));
    return ties.map((tie) => ({
      tie,
      video: items.get(tie.video)?.title ?? 'A video that is gone',
      post: items.get(tie.post)?.title ?? 'A post that is gone'
    }));
  });
  /** Rows that are drawn at first, and more each time. */
  const MORE = 50;
  let most = $state(MORE);

  async function takeBack(tie: Tie, title: string) {
    await undecide([tie]);
    deck.say(
      tie.relation === 'none' ? `“${title}” may be suggested again.` : `“${title}” is unpaired.`
    );
  }
</script>

{#if decided.value && decided.value.length > 0}
  <details class="border-t border-line pt-2">
    <summary class="cursor-pointer font-semibold">Decided ({decided.value.length})</summary>
    <ul class="pt-1" aria-label="Decided pairs">
      {#each decided.value.slice(0, most) as { tie, video, post } (tie.id)}
        <li class="flex flex-wrap items-baseline gap-x-3 border-b border-line px-2 py-1 text-sm">
          <span class="min-w-0 flex-1 basis-60"
            ><span class="font-semibold">{video}</span>
            <span class="text-quiet">{tie.relation === 'none' ? 'is not about' : 'and'}</span>
            <span class="font-semibold">{post}</span></span
          >
          <span class="text-quiet"
            >{tie.relation === 'none' ? 'Not a pair' : relationLabels[tie.relation]} · {formatDate(
              tie.at
            )}</span
          >
          <button
            class="bare btn btn-sm"
            onclick={() => takeBack(tie, video)}
            aria-label={tie.relation === 'none'
              ? `Suggest “${video}” and “${post}” again`
              : `Unpair “${video}” and “${post}”`}
            >{tie.relation === 'none' ? 'Suggest again' : 'Unpair'}</button
          >
        </li>
      {/each}
    </ul>
    {#if decided.value.length > most}
      <button class="plain mt-1 btn btn-sm" onclick={() => (most += MORE)}>Show more</button>
    {/if}
  </details>
{/if}
