<script lang="ts">
  import type { Problem } from '$lib/core/model/place.ts';
  import { lastArchive, reminderDays, saveReminderDays } from '$lib/data/archive/reminder.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { formatSize } from '$lib/ui/formatSize.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDateTime } from '$lib/ui/messages.ts';
  import NewPassphrase from '$lib/ui/NewPassphrase.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { makeArchive } from '$lib/work/archive/makeArchive.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  const last = live(() => lastArchive);
  const days = live(() => reminderDays);
  let withFiles = $state(true);
  let withCopies = $state(true);
  let withKeys = $state(false);
  let passphrase = $state('');
  let isBusy = $state(false);
  let problem = $state<Problem | null>(null);
  const isReady = $derived(!isBusy && (!withKeys || passphrase !== ''));

  const REMINDERS = [
    [7, 'After a week'],
    [30, 'After 30 days'],
    [90, 'After 90 days'],
    [0, 'Never']
  ] as const;

  async function make(event: SubmitEvent) {
    event.preventDefault();
    isBusy = true;
    const wish = { withFiles, withCopies, passphrase: withKeys ? passphrase : '' };
    problem = (await attempt(() => makeArchive(wish))).problem;
    isBusy = false;
    if (!problem) deck.say('The archive is downloading. Keep it on another disk.');
  }
</script>

<section aria-labelledby="make" class="flex flex-col gap-3 text-sm">
  <h2 id="make" class="text-base font-semibold">Make an archive</h2>
  <p>
    One ZIP file with everything in this browser: places, pairs, drafts, scripts, recordings,
    pictures, lanes and the journal, in open formats.
  </p>
  <form class="flex flex-col gap-3" onsubmit={make}>
    <div class="flex flex-col gap-1.5">
      <label class="flex items-baseline gap-2">
        <input type="checkbox" class="self-center" bind:checked={withFiles} />
        <span>Finished videos and your own voices</span>
      </label>
      <label class="flex items-baseline gap-2">
        <input type="checkbox" class="self-center" bind:checked={withCopies} />
        <span
          >Copies for other programs
          <span class="text-quiet">(posts as Markdown and HTML, captions as WebVTT)</span></span
        >
      </label>
      <label class="flex items-baseline gap-2">
        <input type="checkbox" class="self-center" bind:checked={withKeys} />
        <span>Keys of your places, encrypted with a passphrase</span>
      </label>
    </div>
    {#if withKeys}
      <div class="flex max-w-md flex-col gap-2 border-l-2 border-edge pl-3">
        <NewPassphrase
          bind:value={passphrase}
          note="You need it to import the keys. Nobody can recover it."
        />
      </div>
    {/if}
    <div class="flex flex-wrap items-center gap-3">
      <button class="strong btn btn-sm" disabled={!isReady}>
        {isBusy ? 'Making…' : 'Make an archive'}
      </button>
      <p class="text-quiet">
        {last.value
          ? `Last archive: ${formatDateTime(last.value.at)}, ${formatSize(last.value.bytes)}.`
          : last.value === null
            ? 'No archive has been made in this browser yet.'
            : ''}
      </p>
    </div>
  </form>
  {#if problem}<ProblemNote {problem} />{/if}
  <label class="flex flex-wrap items-center gap-2">
    Remind me to make another
    <select
      class="field w-auto"
      value={days.value ?? 30}
      onchange={(event) => saveReminderDays(Number(event.currentTarget.value))}
    >
      {#each REMINDERS as [value, label] (value)}<option {value}>{label}</option>{/each}
    </select>
  </label>
</section>
