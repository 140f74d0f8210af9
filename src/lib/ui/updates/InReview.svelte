<script lang="ts">
  import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import { isUpdate } from '$lib/core/delivery/payload.ts';
  import { entriesIn } from '$lib/data/outbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formLabels } from '$lib/ui/updateMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { approveUpdates, undoUpdate } from '$lib/work/publishUpdates.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';

  let { networks }: { networks: ReadonlyMap<string, string> } = $props();
  const held = live(
    () => async () =>
      (await entriesIn('in-review'))
        .filter((e) => isUpdate(e.payload) && e.laneId === '')
        .sort((a, b) => b.created - a.created)
  );

  async function send(entries: readonly OutboxEntry[]) {
    await runTask('Publishing updates', () => approveUpdates(entries));
    deck.say(`${plural(entries.length, 'update', 'updates')} approved.`);
  }
</script>

{#if held.value && held.value.length > 0}
  {@const all = held.value}
  <section aria-labelledby="held" class="flex flex-col gap-2">
    <div class="flex flex-wrap items-center gap-3">
      <h2 id="held" class="font-semibold">Waiting for review</h2>
      {#if all.length > 1}
        <button class="plain btn btn-sm" onclick={() => send(all)}>Approve all {all.length}</button>
      {/if}
    </div>
    <ul class="flex flex-col gap-1" aria-label="Waiting for review">
      {#each all as entry (entry.key)}
        {@const { payload } = entry}
        {#if isUpdate(payload)}
          <li
            class="flex flex-wrap items-start gap-x-3 gap-y-1 rounded-container border border-line bg-sheet p-2 text-sm"
          >
            <div class="min-w-0 flex-1 basis-64">
              <p class="font-semibold">
                {formLabels[payload.form]} for {networks.get(entry.placeId) ??
                  'a disconnected place'}
              </p>
              <p class="line-clamp-3 break-words whitespace-pre-line">{payload.text}</p>
            </div>
            <a class="plain btn btn-sm" href="/updates/{entry.itemId}"
              >Preview<span class="sr-only"> at “{payload.title}”</span></a
            >
            <button class="strong btn btn-sm" onclick={() => send([entry])}
              >Approve<span class="sr-only">: “{payload.title}”</span></button
            >
            <button class="bare btn btn-sm" onclick={() => undoUpdate(entry)}
              >Discard<span class="sr-only">: “{payload.title}”</span></button
            >
          </li>
        {/if}
      {/each}
    </ul>
  </section>
{/if}
