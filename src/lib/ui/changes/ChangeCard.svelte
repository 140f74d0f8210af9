<script lang="ts">
  import type { Choice, PostChange } from '$lib/core/twins/merge/mergePosts.ts';
  import TextDiff from '$lib/ui/TextDiff.svelte';
  import { readable } from './readable.ts';

  interface Props {
    change: PostChange;
    index: number;
    choice: Choice;
    language: string;
    /** Where it stands. */
    place: 'blog' | 'channel';
    onchoose: (choice: Choice) => void;
  }
  let { change, index, choice, language, place, onchoose }: Props = $props();

  const names: Record<PostChange['where'], string> = {
    title: 'Title',
    excerpt: 'Excerpt',
    tags: 'Tags',
    picture: 'Featured picture',
    text: 'Text'
  };
  const words = (value: string) => (change.where === 'text' ? readable(value) : value);
  const [base, mine, fresh] = $derived([change.base, change.mine, change.fresh].map(words));
  const kind = $derived(
    change.isConflict ? 'conflict' : mine === '' ? 'added' : fresh === '' ? 'removed' : 'changed'
  );
  const kinds = {
    conflict: 'Changed on both sides',
    added: 'New',
    removed: 'No longer there',
    changed: 'Changed'
  };
  const options: [Choice, string][] = $derived([
    ['mine', mine === '' ? 'Leave it out' : `Keep the ${place}’s`],
    ['fresh', fresh === '' ? 'Remove it' : 'Use the new'],
    ...(change.where === 'text' && mine !== '' && fresh !== ''
      ? [['both', 'Keep both'] as [Choice, string]]
      : [])
  ]);
</script>

<li
  class="flex flex-col gap-1.5 rounded-container border border-line bg-sheet p-3 {change.isConflict
    ? 'border-l-4 border-l-ink'
    : ''}"
>
  <div class="flex flex-wrap items-center gap-2 text-sm">
    <h3 id="change-{index}" class="font-semibold">
      {names[change.where]}: {kinds[kind].toLowerCase()}
    </h3>
    {#if !change.isConflict}
      <label class="ml-auto flex items-center gap-1.5">
        <input
          type="checkbox"
          class="size-4"
          checked={choice === 'fresh'}
          aria-describedby="change-{index}"
          onchange={(event) => onchoose(event.currentTarget.checked ? 'fresh' : 'mine')}
        />
        Apply
      </label>
    {/if}
  </div>
  {#if change.isConflict}
    <dl class="grid gap-x-3 gap-y-1 sm:grid-cols-[6rem_1fr]" lang={language || undefined}>
      <dt class="border-l-4 border-post pl-2 text-sm">At the {place}</dt>
      <dd class="reading text-sm whitespace-pre-line">
        {#if mine}<TextDiff before={base ?? ''} after={mine} />{:else}<em>Deleted there.</em>{/if}
      </dd>
      <dt class="border-l-4 border-video pl-2 text-sm">New</dt>
      <dd class="reading text-sm whitespace-pre-line">
        {#if fresh}<TextDiff before={base ?? ''} after={fresh} />{:else}<em>No longer said.</em
          >{/if}
      </dd>
    </dl>
    <div
      class="flex flex-wrap gap-x-4 gap-y-1 text-sm"
      role="radiogroup"
      aria-labelledby="change-{index}"
    >
      {#each options as [value, label] (value)}
        <label class="flex items-center gap-1.5">
          <input
            type="radio"
            name="choice-{index}"
            checked={choice === value}
            onchange={() => onchoose(value)}
          />
          {label}
        </label>
      {/each}
    </div>
  {:else}
    <p class="reading text-sm whitespace-pre-line" lang={language || undefined}>
      <TextDiff before={mine ?? ''} after={fresh ?? ''} />
    </p>
  {/if}
</li>
