<script lang="ts">
  import { archiveFolder } from '$lib/data/archive/folder.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDateTime } from '$lib/ui/messages.ts';
  import {
    allowFolder,
    canWriteFolders,
    chooseFolder,
    copyNow,
    forgetFolder
  } from '$lib/work/archive/dailyCopy.ts';

  const folder = live(() => archiveFolder);
  let isBusy = $state(false);

  async function during(work: () => Promise<unknown>) {
    isBusy = true;
    try {
      await work();
    } finally {
      isBusy = false;
    }
  }
  async function stop() {
    await forgetFolder();
    deck.say('No more daily copies. Those in your folder stay there.');
  }
</script>

<section aria-labelledby="daily" class="flex flex-col gap-2 text-sm">
  <h2 id="daily" class="text-base font-semibold">Daily copy to a folder</h2>
  {#if !canWriteFolders()}
    <p>
      This browser cannot write to a folder. Make an archive by hand, or use a browser that can,
      such as one built on Chromium.
    </p>
  {:else if folder.value}
    <p>
      Once a day while Swift Twin is open, an archive without keys goes to the folder
      <strong>{folder.value.handle.name}</strong>. The last seven stay.
    </p>
    {#if folder.value.trouble === 'not-allowed'}
      <p role="alert">
        The browser has to ask you again before Swift Twin may write there.
        <button class="strong ml-2 btn btn-sm" disabled={isBusy} onclick={() => during(allowFolder)}
          >Allow the folder</button
        >
      </p>
    {:else if folder.value.trouble === 'failed'}
      <p role="alert">
        The last copy could not be written. The folder may be gone, or its disk full. It is tried
        again in an hour.
      </p>
    {/if}
    <p class="text-quiet">
      {folder.value.last ? `Last copy: ${formatDateTime(folder.value.last)}.` : 'No copy yet.'}
    </p>
    <div class="flex flex-wrap gap-2">
      <button class="plain btn btn-sm" disabled={isBusy} onclick={() => during(copyNow)}
        >{isBusy ? 'Copying…' : 'Copy now'}</button
      >
      <button class="plain btn btn-sm" disabled={isBusy} onclick={() => during(chooseFolder)}
        >Change the folder…</button
      >
      <button class="bare btn btn-sm" onclick={stop}>Stop daily copies</button>
    </div>
  {:else}
    <p>
      An archive without keys can go to a folder of this device once a day while Swift Twin is open,
      such as one that is backed up or synced.
    </p>
    <button
      class="plain btn self-start btn-sm"
      disabled={isBusy}
      onclick={() => during(chooseFolder)}>Choose a folder…</button
    >
  {/if}
</section>
