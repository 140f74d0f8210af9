<script lang="ts">
  import { isUpdate, type OutboxEntry } from '$lib/core/lanes/outbox.ts';
  import { db } from '$lib/data/db.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formWords } from '$lib/ui/updateWords.ts';
  import { countWords } from '$lib/ui/words.ts';
  import { sendHeld, undoUpdate } from '$lib/work/tell.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';

  let { networks }: { networks: ReadonlyMap<string, string> } = $props();
  const held = live(
    () => async () =>
      (await db.outbox.where({ state: 'in-review' }).toArray())
        .filter((e) => isUpdate(e.payload) && e.laneId === '')
        .sort((a, b) => b.created - a.created)
  );

  async function send(entries: readonly OutboxEntry[]) {
    await runTask('Sending what was looked at', () => sendHeld(entries));
    deck.say(`${countWords(entries.length, 'update', 'updates')} let go out.`);
  }
</script>

{#if held.value && held.value.length > 0}
  {@const all = held.value}
  <section aria-labelledby="held" class="flex flex-col gap-2">
    <div class="flex flex-wrap items-center gap-3">
      <h2 id="held" class="font-semibold">Waits for review</h2>
      {#if all.length > 1}
        <button class="plain btn btn-sm" onclick={() => send(all)}
          >Let all {all.length} go out</button
        >
      {/if}
    </div>
    <ul class="flex flex-col gap-1" aria-label="Waits for review">
      {#each all as entry (entry.key)}
        {@const { payload } = entry}
        {#if isUpdate(payload)}
          <li
            class="flex flex-wrap items-start gap-x-3 gap-y-1 rounded-container border border-line bg-sheet p-2 text-sm"
          >
            <div class="min-w-0 flex-1 basis-64">
              <p class="font-semibold">
                {formWords[payload.form]} for {networks.get(entry.placeId) ?? 'an unlinked place'}
              </p>
              <p class="line-clamp-3 break-words whitespace-pre-line">{payload.text}</p>
            </div>
            <a class="plain btn btn-sm" href="/updates/{entry.itemId}"
              >Look<span class="sr-only"> at “{payload.title}”</span></a
            >
            <button class="strong btn btn-sm" onclick={() => send([entry])}
              >Let it go out<span class="sr-only">: “{payload.title}”</span></button
            >
            <button class="bare btn btn-sm" onclick={() => undoUpdate(entry)}
              >Drop it<span class="sr-only">: “{payload.title}”</span></button
            >
          </li>
        {/if}
      {/each}
    </ul>
  </section>
{/if}
