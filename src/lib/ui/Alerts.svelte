<script lang="ts">
  import { readAlerts } from '$lib/data/alerts.ts';
  import { live } from './live.svelte.ts';
  import { plural } from './messages.ts';

  /** What is shown in the bar itself; more of it is folded into one word. */
  const MAX_SHOWN = 2;
  const found = live(() => () => readAlerts(Date.now()));
  const alerts = $derived.by(() => {
    if (!found.value) return [];
    const { review, failed, low, ending, refused, quiet } = found.value;
    return [
      { href: '/review', words: `${review} to review`, names: [], is: review > 0 },
      { href: '/journal', words: `${failed} failed`, names: [], is: failed > 0 },
      { href: '/places', words: 'allowance low', names: low, is: low.length > 0 },
      { href: '/places', words: 'a key ends soon', names: ending, is: ending.length > 0 },
      { href: '/places', words: 'a place fails', names: refused, is: refused.length > 0 },
      { href: '/lanes', words: 'a lane finds nothing', names: quiet, is: quiet.length > 0 }
    ].filter((alert) => alert.is);
  });
  let isOpen = $state(false);

  function onfocusout(event: FocusEvent & { currentTarget: HTMLElement }) {
    if (!event.currentTarget.contains(event.relatedTarget as Node | null)) isOpen = false;
  }
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && (isOpen = false)} />

{#snippet links(isNamed: boolean)}
  {#each alerts as { href, words, names } (words)}
    <a {href} class="underline" title={names.join(', ')} onclick={() => (isOpen = false)}
      >{words}{isNamed && names.length > 0 ? `: ${names.join(', ')}` : ''}</a
    >
  {/each}
{/snippet}

{#if alerts.length > 0}
  <div class="shrink-0 text-sm whitespace-nowrap" role="status" aria-label="Needs attention">
    {#if alerts.length <= MAX_SHOWN}
      <p class="hidden gap-3 sm:flex">{@render links(false)}</p>
    {/if}
    <details
      class="relative {alerts.length <= MAX_SHOWN ? 'sm:hidden' : ''}"
      bind:open={isOpen}
      {onfocusout}
    >
      <summary class="cursor-pointer rounded-base px-1"
        ><span class="sr-only sm:not-sr-only"
          >{plural(alerts.length, 'thing needs', 'things need')} attention</span
        ><span class="sm:hidden" aria-hidden="true">{alerts.length} !</span></summary
      >
      <p
        class="absolute right-0 z-10 flex w-64 flex-col gap-1 rounded-base border border-edge bg-sheet p-2 whitespace-normal shadow-lg sm:right-auto sm:left-0 sm:w-80"
      >
        {@render links(true)}
      </p>
    </details>
  </div>
{/if}
