<script lang="ts">
  import { onMount } from 'svelte';
  import { formatSize } from '$lib/ui/formatSize.ts';

  let room = $state<{ used: number; left: number } | null>(null);
  let isKept = $state<boolean | null>(null);
  let wasRefused = $state(false);

  async function look() {
    const { usage = 0, quota = 0 } = (await navigator.storage?.estimate?.()) ?? {};
    room = { used: usage, left: Math.max(0, quota - usage) };
    isKept = (await navigator.storage?.persisted?.()) ?? null;
  }
  onMount(look);

  async function keep() {
    wasRefused = !(await navigator.storage.persist());
    await look();
  }
</script>

<section aria-labelledby="room" class="flex flex-col gap-2 text-sm">
  <h2 id="room" class="text-base font-semibold">Storage in this browser</h2>
  {#if room}
    <p>
      <strong>{formatSize(room.used)}</strong> used, {formatSize(room.left)} left.
    </p>
    <meter
      class="h-2 w-full max-w-md"
      min="0"
      max={room.used + room.left}
      value={room.used}
      aria-label="Storage used">{formatSize(room.used)}</meter
    >
  {/if}
  {#if isKept}
    <p>The browser keeps this data until you clear it.</p>
  {:else if isKept === false}
    <p>The browser may clear this data when the disk is nearly full.</p>
    <button class="plain btn self-start btn-sm" onclick={keep}>Ask the browser to keep it</button>
    {#if wasRefused}
      <p role="status">
        The browser did not agree. It may once you have used Swift Twin for longer, or added it to
        your bookmarks. Until then, archives are your copy.
      </p>
    {/if}
  {/if}
</section>

<style>
  /* Browsers draw the empty part in light colours, which looks full in the dark. */
  meter,
  meter::-webkit-meter-bar {
    border: 0;
    background: var(--line);
  }
  meter::-webkit-meter-optimum-value {
    background: var(--ink);
  }
  meter::-moz-meter-bar {
    background: var(--ink);
  }
</style>
