<script lang="ts">
  import Bell from '@lucide/svelte/icons/bell';
  import { readAlerts } from '$lib/data/alerts.ts';
  import { live } from './live.svelte.ts';
  import { plural } from './messages.ts';

  const found = live(() => () => readAlerts(Date.now()));
  const alerts = $derived.by(() => {
    if (!found.value) return [];
    const { review, failed, low, ending, refused, quiet, comments, archiveDue, copyFails } =
      found.value;
    return [
      { href: '/review', words: `${review} to review`, names: [], count: review },
      {
        href: '/comments',
        words: plural(comments, 'new comment', 'new comments'),
        names: [],
        count: comments
      },
      { href: '/journal', words: `${failed} failed`, names: [], count: failed },
      { href: '/places', words: 'allowance low', names: low, count: low.length },
      { href: '/places', words: 'a key ends soon', names: ending, count: ending.length },
      { href: '/places', words: 'a place fails', names: refused, count: refused.length },
      { href: '/lanes', words: 'a lane finds nothing', names: quiet, count: quiet.length },
      { href: '/archive', words: 'time for an archive', names: [], count: Number(archiveDue) },
      { href: '/archive', words: 'the daily copy fails', names: [], count: Number(copyFails) }
    ].filter((alert) => alert.count > 0);
  });
  const count = $derived(alerts.reduce((sum, alert) => sum + alert.count, 0));
  let isOpen = $state(false);

  function onfocusout(event: FocusEvent & { currentTarget: HTMLElement }) {
    if (!event.currentTarget.contains(event.relatedTarget as Node | null)) isOpen = false;
  }
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && (isOpen = false)} />

{#if alerts.length > 0}
  <details class="relative shrink-0 text-sm" bind:open={isOpen} {onfocusout}>
    <summary
      class="bare btn list-none btn-sm"
      aria-label={plural(count, 'thing needs attention', 'things need attention')}
      title={alerts.map((alert) => alert.words).join(', ')}
    >
      <Bell aria-hidden="true" />
      <span class="rounded-full bg-ink px-1.5 text-xs font-semibold text-canvas"
        >{count > 99 ? '99+' : count}</span
      >
    </summary>
    <p
      class="absolute right-0 z-30 flex w-72 max-w-[calc(100vw-1rem)] flex-col gap-2 rounded-base border border-edge bg-sheet p-3 shadow-lg"
    >
      {#each alerts as { href, words, names } (words)}
        <a {href} class="underline" onclick={() => (isOpen = false)}
          >{words}{names.length > 0 ? `: ${names.join(', ')}` : ''}</a
        >
      {/each}
    </p>
  </details>
{/if}
<p class="sr-only" role="status">
  {count > 0 ? plural(count, 'thing needs attention', 'things need attention') : ''}
</p>
