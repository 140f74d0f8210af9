<script lang="ts">
  import { page } from '$app/state';
  import { isSameSite } from '$lib/core/feeds/address.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { demoKeyOf } from '$lib/work/start.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { formatDate } from '$lib/ui/messages.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  interface Props {
    place: { title: string; url?: string; hasKey: boolean; keyEnds?: string | null };
    /** Addresses that the key is sent to. */
    goesTo?: readonly string[];
    /** What the key is for, in words. */
    purpose: string;
    help: string;
    /** Takes the key once the place accepts it. @throws PlaceError */
    give: (key: string, signal: AbortSignal) => Promise<unknown>;
    take: () => unknown;
  }
  let { place, goesTo = [], purpose, help, give, take }: Props = $props();
  let key = $state('');
  let problem = $state<Problem | null>(null);
  const id = $props.id();
  /** Hosts that are not of the place itself: whoever writes its pages could send the key anywhere. */
  const elsewhere = $derived([
    ...new Set(
      goesTo
        .filter((address) => address && !isSameSite(address, place.url ?? ''))
        .map((address) => new URL(address).host)
    )
  ]);
  let isConfirmed = $state(false);
  const mayBeSent = $derived(elsewhere.length === 0 || isConfirmed);
  /** The demo world says its own keys. */
  const demoKey = $derived(demoKeyOf(page.data.demo, place.url ?? ''));

  async function save(given: string) {
    const done = await attempt(() =>
      runTask(`Trying the key at ${place.title}`, (signal) => give(given, signal))
    );
    problem = done.problem;
    key = '';
    if (!problem) deck.say(`The key for ${place.title} works.`);
  }
</script>

{#if place.hasKey}
  <p class="flex flex-wrap items-center gap-2 text-sm">
    <span>Key <span class="figures" aria-label="hidden">••••••••</span></span>
    {#if place.keyEnds}<span>expires {formatDate(place.keyEnds)}</span>{/if}
    <button class="plain btn btn-sm" onclick={take}>
      Remove the key<span class="sr-only"> of {place.title}</span>
    </button>
  </p>
{:else}
  <form
    class="flex flex-col gap-1"
    onsubmit={(event) => {
      event.preventDefault();
      void save(key);
    }}
  >
    <label class="text-sm font-semibold" for={id}>{purpose} {place.title}</label>
    {#if elsewhere.length > 0}
      <label class="flex items-baseline gap-2 text-sm">
        <input type="checkbox" class="self-center" bind:checked={isConfirmed} />
        <span
          >The key will be sent to <strong>{elsewhere.join(' and ')}</strong>, which is not the
          address of
          {place.title}. I know this host.</span
        >
      </label>
    {/if}
    <div class="flex flex-wrap gap-2">
      <input
        {id}
        class="field min-w-0 grow basis-48"
        type="password"
        autocomplete="off"
        bind:value={key}
        aria-describedby="{id}-help"
      />
      <button class="strong btn btn-sm" disabled={key.trim() === '' || !mayBeSent}>Save key</button>
      {#if demoKey}
        <button
          type="button"
          class="plain btn btn-sm"
          disabled={!mayBeSent}
          onclick={() => save(demoKey)}>Use the demo key</button
        >
      {/if}
    </div>
    <p id="{id}-help" class="text-sm text-quiet">{help}</p>
  </form>
{/if}
{#if problem}<ProblemNote {problem} item={place.title} />{/if}
