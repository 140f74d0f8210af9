<script lang="ts">
  import type { GlossaryEntry } from '$lib/core/links/glossary.ts';
  import { allGlossary, removeGlossaryEntry, saveGlossaryEntry } from '$lib/data/glossary.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import EntryForm from '$lib/ui/glossary/EntryForm.svelte';
  import { live } from '$lib/ui/live.svelte.ts';

  const entries = live(() => allGlossary);
  let edited = $state<string | null>(null);

  async function remove(entry: GlossaryEntry) {
    await removeGlossaryEntry(entry.id);
    deck.say(`“${entry.words[0]}” is removed from the glossary.`, {
      label: 'Undo',
      run: () => saveGlossaryEntry(entry)
    });
  }
</script>

<svelte:head><title>Glossary · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-4xl flex-col gap-3 px-3 py-3">
    <header class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Glossary</h1>
      <a class="bare ml-auto btn btn-sm" href="/">Back to In step</a>
    </header>
    <p class="text-sm text-quiet">
      Words and the addresses to link them to, each once per post. The desk suggests these links,
      and links to your other posts; you see each one before it is added.
    </p>
    <section aria-label="Add a word" class="rounded-container border border-line bg-sheet p-3">
      <EntryForm
        entry={null}
        onsaved={(entry) => deck.say(`“${entry.words[0]}” is in the glossary.`)}
      />
    </section>
    {#if entries.value?.length === 0}
      <EmptyState title="No words yet">
        <p>Add the terms of your trade, the tools you use, or what you sell.</p>
      </EmptyState>
    {/if}
    <ul class="flex flex-col" aria-label="Words">
      {#each entries.value ?? [] as entry (entry.id)}
        <li class="border-b border-line py-2">
          {#if edited === entry.id}
            <EntryForm {entry} onsaved={() => (edited = null)} oncancel={() => (edited = null)} />
          {:else}
            <div class="flex flex-wrap items-start gap-x-3 gap-y-1">
              <div class="min-w-0 flex-1 basis-72 text-sm">
                <p>
                  <span class="font-semibold">{entry.words.join(', ')}</span>
                  {#if entry.isPaid}<span class="text-quiet">· paid link</span>{/if}
                </p>
                {#if entry.about}<p>{entry.about}</p>{/if}
                <p class="wrap-anywhere">
                  <a class="underline" href={entry.url} target="_blank" rel="noreferrer"
                    >{entry.url}</a
                  >
                </p>
              </div>
              <button class="plain btn btn-sm" onclick={() => (edited = entry.id)}
                >Edit<span class="sr-only"> {entry.words[0]}</span></button
              >
              <button class="bare btn btn-sm" onclick={() => remove(entry)}
                >Remove<span class="sr-only"> {entry.words[0]}</span></button
              >
            </div>
          {/if}
        </li>
      {/each}
    </ul>
  </div>
</div>
