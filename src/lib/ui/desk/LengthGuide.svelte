<script lang="ts">
  import { lengthReasonWords, lengthWords, minutesWords } from '$lib/ui/talkWords.ts';
  import { countWords } from '$lib/ui/words.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const guidance = $derived(desk.talk?.guidance);
</script>

{#if guidance}
  <fieldset class="flex flex-col gap-1 text-sm">
    <legend class="font-semibold">Length of the article</legend>
    <div class="flex flex-wrap gap-x-4 gap-y-1">
      {#each guidance.lengths as { length, words, minutes } (length)}
        <label class="flex items-baseline gap-1.5">
          <input
            type="radio"
            name="length"
            value={length}
            checked={desk.template.length === length}
            onchange={() => (desk.template.length = length)}
          />
          <span
            >{lengthWords[length]}
            <span class="text-quiet"
              >about {countWords(words, 'word', 'words')}, {minutesWords(minutes)}</span
            ></span
          >
        </label>
      {/each}
    </div>
    <p class="text-quiet">
      The talk has {countWords(guidance.talkWords, 'word', 'words')} in {minutesWords(
        guidance.talkMinutes
      )}.
      {lengthWords[guidance.suits]} suits: {lengthReasonWords[guidance.reason]}.
    </p>
  </fieldset>
{/if}
