<script lang="ts">
  import type { Place, Problem } from '$lib/core/model/place.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { giveKey, takeKey } from '$lib/work/link.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import { readPlaces } from '$lib/work/read.ts';

  let { place }: { place: Place } = $props();
  let key = $state('');
  let problem = $state<Problem | null>(null);
  const id = $props.id();

  async function give(event: SubmitEvent) {
    event.preventDefault();
    const done = await attempt(() =>
      runTask(`Trying the key at ${place.title}`, (signal) => giveKey(place, key, signal))
    );
    problem = done.problem;
    key = '';
    if (problem) return;
    deck.say(`The key for ${place.title} works.`);
    await attempt(() => readPlaces(done.value ?? place));
  }
</script>

{#if place.hasKey}
  <p class="flex flex-wrap items-center gap-2 text-sm">
    <span>Key <span class="times" aria-label="hidden">••••••••</span></span>
    <button class="plain btn btn-sm" onclick={() => takeKey(place)}>
      Remove the key<span class="sr-only"> of {place.title}</span>
    </button>
  </p>
{:else}
  <form class="flex flex-col gap-1" onsubmit={give}>
    <label class="text-sm font-semibold" for={id}>Key for publishing to {place.title}</label>
    <div class="flex gap-2">
      <input
        {id}
        class="field min-w-0 flex-1"
        type="password"
        autocomplete="off"
        bind:value={key}
        aria-describedby="{id}-help"
      />
      <button class="strong btn btn-sm" disabled={key.trim() === ''}>Give the key</button>
    </div>
    <p id="{id}-help" class="text-sm text-quiet">
      Made at the {place.kind}, for programs. It stays in this browser, is sent to this {place.kind}
      only, and stands in no export and no log. Reading needs none.
    </p>
  </form>
{/if}
{#if problem}<ProblemNote {problem} item={place.title} />{/if}
