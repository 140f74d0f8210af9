<script lang="ts">
  import Minus from '@lucide/svelte/icons/minus';
  import Plus from '@lucide/svelte/icons/plus';
  import { untrack } from 'svelte';
  import type { Relation } from '$lib/core/model/tie.ts';
  import { speaksFor } from '$lib/core/twins/likeness/reasons.ts';
  import { spokenText } from '$lib/core/captions/spokenText.ts';
  import { getDetails } from '$lib/data/details.ts';
  import { getBody } from '$lib/data/items.ts';
  import { htmlText } from '$lib/core/text/html.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import PairHalf from './PairHalf.svelte';
  import { reasonText, relationLabels } from './pairMessages.ts';
  import type { PairsState, ShownPair } from './pairsState.svelte.ts';

  let { view, pair }: { view: PairsState; pair: ShownPair } = $props();
  // What is proposed at first; a choice stays when pairs are looked for again.
  let relation = $state<Relation>(untrack(() => pair.relation));
  const id = $props.id();

  /** Characters of a text that are shown. */
  const MOST = 420;
  const texts = live(() => {
    const { video, post, videoItem, postItem } = pair;
    return async () => {
      const [ofVideo, ofPost, details] = await Promise.all([
        getBody(video),
        getBody(post),
        getDetails(video)
      ]);
      const said = spokenText(details?.cues ?? []);
      return {
        video: (said || htmlText(ofVideo) || videoItem.summary).slice(0, MOST),
        post: (htmlText(ofPost) || postItem.summary).slice(0, MOST)
      };
    };
  });
  const [forIt, against] = $derived([
    pair.reasons.filter((reason) => speaksFor(reason)),
    pair.reasons.filter((reason) => !speaksFor(reason))
  ]);
</script>

<li
  class="flex flex-col gap-2 rounded-container border border-line bg-sheet p-2"
  aria-label="“{pair.videoItem.title}” and “{pair.postItem.title}”"
>
  <div class="grid gap-2 md:grid-cols-2">
    <PairHalf item={pair.videoItem} side="video" text={texts.value?.video ?? ''} />
    <PairHalf item={pair.postItem} side="post" text={texts.value?.post ?? ''} />
  </div>
  <ul class="flex flex-wrap gap-x-4 gap-y-0.5 text-sm" aria-label="For and against">
    {#each [...forIt, ...against] as reason (reason.kind + ('side' in reason ? reason.side : ''))}
      {@const isFor = speaksFor(reason)}
      <li class="flex items-baseline gap-1 {isFor ? '' : 'text-quiet'}">
        {#if isFor}<Plus class="size-3.5 self-center" aria-label="For:" />{:else}<Minus
            class="size-3.5 self-center"
            aria-label="Against:"
          />{/if}{reasonText(reason)}
      </li>
    {/each}
  </ul>
  <div class="flex flex-wrap items-center gap-2 text-sm">
    <label for="{id}-relation" class="sr-only">How they belong together</label>
    <select id="{id}-relation" class="field w-auto" bind:value={relation}>
      {#each Object.entries(relationLabels) as [value, label] (value)}
        <option {value}>{label}</option>
      {/each}
    </select>
    <button class="strong btn btn-sm" onclick={() => view.decide([pair], relation)}>Pair</button>
    <button class="plain btn btn-sm" onclick={() => view.decide([pair], 'none')}>Not a pair</button>
    <span class="ml-auto text-quiet">{Math.round(pair.chance * 100)} % likely</span>
  </div>
</li>
