<script lang="ts">
  import { unlock } from '$lib/work/keyLock.ts';
  import { liveKeyLock } from './keyLock.svelte.ts';

  const lock = liveKeyLock();
  let passphrase = $state('');
  let isWrong = $state(false);
  let isTrying = $state(false);
  const id = $props.id();

  async function tryIt(event: SubmitEvent) {
    event.preventDefault();
    isTrying = true;
    isWrong = !(await unlock(passphrase));
    isTrying = false;
    passphrase = '';
  }
</script>

{#if lock.value === 'locked'}
  <form
    class="flex flex-wrap items-center gap-2 border-b border-line bg-sheet p-3 text-sm"
    onsubmit={tryIt}
  >
    <label for={id}>
      <strong>Your keys are locked.</strong> Nothing is published until you enter your passphrase.
    </label>
    <input
      {id}
      class="field w-56 max-w-full"
      type="password"
      autocomplete="current-password"
      bind:value={passphrase}
      aria-describedby={isWrong ? `${id}-wrong` : undefined}
      aria-invalid={isWrong}
    />
    <button class="strong btn btn-sm" disabled={passphrase === '' || isTrying}>
      {isTrying ? 'Unlocking…' : 'Unlock'}
    </button>
    {#if isWrong}
      <span id="{id}-wrong" role="alert"
        >That is not the passphrase. If you lost it, forget the keys under
        <a href="/places">Places</a>.</span
      >
    {/if}
  </form>
{/if}
