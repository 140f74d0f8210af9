<script lang="ts">
  import { languageName, mendingMessage, tidyLabels } from '$lib/ui/talkMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import type { TidyOptions } from '$lib/core/captions/tidyOptions.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const talk = $derived(desk.talk);
  const names = Object.keys(tidyLabels) as (keyof TidyOptions)[];

  async function set(name: keyof TidyOptions, value: boolean) {
    desk.tidy[name] = value;
    await desk.readTalk();
  }
</script>

{#if talk}
  <details class="text-sm">
    <summary class="text-quiet">
      {languageName(talk.language)}{talk.isRestored ? ', sentences restored' : ''}{talk.mended
        .length > 0
        ? `, ${plural(
            talk.mended.reduce((sum, m) => sum + m.count, 0),
            'fix',
            'fixes'
          )}`
        : ''}
    </summary>
    <div class="flex flex-col gap-2 py-2">
      {#if talk.isRestored}
        <p>
          The captions have no stops, so ends of sentences, commas and capitals were found from the
          words and the pauses. Look them over.
        </p>
      {/if}
      {#if talk.mended.length > 0}
        <ul class="list-disc pl-4">
          {#each talk.mended as mending (mending.kind)}<li>{mendingMessage(mending)}</li>{/each}
        </ul>
      {/if}
      <fieldset class="flex flex-col gap-1">
        <legend class="font-semibold">Leave out of the words</legend>
        {#each names as name (name)}
          <label class="flex items-center gap-2">
            <input
              type="checkbox"
              checked={desk.tidy[name]}
              onchange={(event) => set(name, event.currentTarget.checked)}
            />
            {tidyLabels[name]}
          </label>
        {/each}
      </fieldset>
    </div>
  </details>
{/if}
