<script lang="ts">
  import { v4 } from 'uuid';
  import { addressFromInput } from '$lib/core/feeds/address.ts';
  import type { GlossaryEntry } from '$lib/core/links/glossary.ts';
  import { saveGlossaryEntry } from '$lib/data/glossary.ts';

  interface Props {
    /** The entry that is edited; null makes a new one. */
    entry: GlossaryEntry | null;
    onsaved: (entry: GlossaryEntry) => unknown;
    oncancel?: () => unknown;
  }
  let { entry, onsaved, oncancel }: Props = $props();
  // svelte-ignore state_referenced_locally
  let words = $state(entry?.words.join(', ') ?? '');
  // svelte-ignore state_referenced_locally
  let url = $state(entry?.url ?? '');
  // svelte-ignore state_referenced_locally
  let about = $state(entry?.about ?? '');
  // svelte-ignore state_referenced_locally
  let isPaid = $state(entry?.isPaid ?? false);
  let problem = $state('');
  const id = $props.id();

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const list = words
      .split(',')
      .map((word) => word.trim())
      .filter(Boolean);
    const address = addressFromInput(url);
    if (list.length === 0) problem = 'Type at least one word.';
    else if (!address) problem = 'This is no web address. It begins with https://.';
    else {
      problem = '';
      const saved: GlossaryEntry = {
        id: entry?.id ?? v4(),
        words: list,
        url: address,
        about: about.trim(),
        isPaid,
        changed: new Date().toISOString()
      };
      await saveGlossaryEntry(saved);
      if (!entry) [words, url, about, isPaid] = ['', '', '', false];
      onsaved(saved);
    }
  }
</script>

<form
  onsubmit={save}
  class="grid gap-x-3 gap-y-2 text-sm md:grid-cols-2"
  aria-label={entry ? `Edit ${entry.words[0] ?? ''}` : 'New word'}
>
  <label class="flex flex-col gap-1 font-semibold"
    >Word and other spellings, separated by commas
    <input class="field font-normal" bind:value={words} aria-describedby="{id}-problem" />
  </label>
  <label class="flex flex-col gap-1 font-semibold"
    >Address <input
      class="field font-normal"
      bind:value={url}
      placeholder="https://"
      aria-describedby="{id}-problem"
    />
  </label>
  <label class="flex flex-col gap-1 font-semibold md:col-span-2"
    >Meaning, in a few words
    <input class="field font-normal" bind:value={about} aria-describedby="{id}-about" />
    <span id="{id}-about" class="font-normal text-quiet"
      >Where a word has several meanings, this tells them apart by the words around it.</span
    >
  </label>
  <div class="flex flex-wrap items-center gap-3 md:col-span-2">
    <label class="flex items-center gap-2"
      ><input type="checkbox" bind:checked={isPaid} /> Paid link (posts say so)</label
    >
    <span class="ml-auto flex gap-2">
      {#if oncancel}<button class="bare btn btn-sm" type="button" onclick={() => oncancel?.()}
          >Cancel</button
        >{/if}
      <button class="strong btn btn-sm">{entry ? 'Save' : 'Add to the glossary'}</button>
    </span>
  </div>
  <p id="{id}-problem" role="alert" class="font-semibold md:col-span-2">{problem}</p>
</form>
