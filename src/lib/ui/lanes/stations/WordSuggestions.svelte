<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { SuggestionKind, WordSuggestion } from '$lib/core/lanes/suggestWords.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { soon } from '$lib/ui/soon.svelte.ts';
  import { lanesWorker } from '$lib/workers/lanes.ts';

  interface Props {
    lane: Lane;
    kind: SuggestionKind;
    /** Words that are asked for already. */
    given: readonly string[];
    onadd: (word: string) => void;
  }
  let { lane, kind, given, onadd }: Props = $props();
  let suggestions = $state.raw<WordSuggestion[]>([]);

  soon(
    250,
    () => JSON.stringify([given, kind, lane.source.places, lane.source.playlists]),
    async (asked) => {
      const found = await lanesWorker().suggest($state.snapshot(lane) as Lane, [...given], kind);
      // What was asked for since is newer.
      if (asked === JSON.stringify([given, kind, lane.source.places, lane.source.playlists]))
        suggestions = found;
    }
  );
  const names = { words: 'Suggested words', phrases: 'Suggested phrases', tags: 'Suggested tags' };
</script>

{#if suggestions.length > 0}
  <ul class="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-sm" aria-label={names[kind]}>
    <li class="text-quiet" aria-hidden="true">Suggested (items found):</li>
    {#each suggestions as { word, together, items } (word)}
      <li>
        <button
          class="underline decoration-edge underline-offset-2 hover:decoration-ink"
          onclick={() => onadd(word)}
          title={given.length > 0
            ? `Said together with yours in ${plural(together, 'item', 'items')}; finds ${plural(items, 'item', 'items')} by itself.`
            : `Finds ${plural(items, 'item', 'items')}.`}
          >{word} <span class="text-quiet">({items})</span></button
        >
      </li>
    {/each}
  </ul>
{/if}
