<script lang="ts">
  import type { Problem } from '$lib/core/model/place.ts';
  import { lockKeys } from '$lib/data/keyOfKeys.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { liveKeyLock } from '$lib/ui/keyLock.svelte.ts';
  import NewPassphrase from '$lib/ui/NewPassphrase.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { changePassphrase, forgetKeys } from '$lib/work/keyLock.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  const lock = liveKeyLock();
  let isOpen = $state(false);
  let passphrase = $state('');
  let isBusy = $state(false);
  let problem = $state<Problem | null>(null);
  const id = $props.id();

  async function change(to: string, said: string) {
    isBusy = true;
    problem = (await attempt(() => changePassphrase(to))).problem;
    isBusy = false;
    if (problem) return;
    passphrase = '';
    isOpen = false;
    deck.say(said);
  }
  function set(event: SubmitEvent) {
    event.preventDefault();
    void change(passphrase, 'Your keys open with the passphrase only.');
  }
</script>

<section aria-labelledby="{id}-title" class="flex flex-col gap-2 text-sm">
  <h2 id="{id}-title" class="text-base font-semibold">Keys in this browser</h2>
  {#if lock.value === 'open'}
    <p>
      They are kept encrypted. With a passphrase, they can be used only after you enter it, each
      time you open or reload Swift Twin; tabs that are open share it. Scheduled posts and lanes
      wait until then.
    </p>
  {:else if lock.value === 'unlocked'}
    <p>They open with your passphrase, and are unlocked while Swift Twin stays open.</p>
  {:else if lock.value === 'locked'}
    <p>They are locked. Enter your passphrase at the top of the page.</p>
  {/if}
  <div class="flex flex-wrap gap-2">
    {#if lock.value === 'unlocked'}
      <button class="plain btn btn-sm" onclick={lockKeys}>Lock now</button>
    {/if}
    {#if (lock.value === 'open' || lock.value === 'unlocked') && !isOpen}
      <button class="plain btn btn-sm" onclick={() => (isOpen = true)}>
        {lock.value === 'open' ? 'Set a passphrase…' : 'Change the passphrase…'}
      </button>
    {/if}
    {#if lock.value === 'unlocked' && !isOpen}
      <button
        class="plain btn btn-sm"
        disabled={isBusy}
        onclick={() => change('', 'Your keys need no passphrase any more.')}
      >
        Remove the passphrase
      </button>
    {/if}
    {#if lock.value === 'locked'}
      <ConfirmButton
        label="Forget all keys…"
        confirm="Forget all keys"
        note="All places stay connected, read only. You add their keys anew."
        onconfirm={forgetKeys}
      />
    {/if}
  </div>
  {#if isOpen}
    <form class="flex max-w-md flex-col gap-2" onsubmit={set}>
      <NewPassphrase
        bind:value={passphrase}
        note="Nobody can recover it. If you lose it, you forget the keys and add them anew."
      />
      <div class="flex gap-2">
        <button class="strong btn btn-sm" disabled={!passphrase || isBusy}>
          {isBusy ? 'Encrypting…' : 'Set the passphrase'}
        </button>
        <button type="button" class="bare btn btn-sm" onclick={() => (isOpen = false)}
          >Cancel</button
        >
      </div>
    </form>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
</section>
