<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import { lengthReasonLabels, lengthLabels, formatMinutes } from '$lib/ui/talkMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const guidance = $derived(desk.talk?.guidance);
</script>

{#if guidance}
  <div class="flex flex-col gap-1 text-sm">
    <Choice
      legend="Length of the article"
      shown="above"
      options={guidance.lengths.map(
        ({ length, words, minutes }) =>
          [
            length,
            lengthLabels[length],
            `about ${plural(words, 'word', 'words')}, ${formatMinutes(minutes)}`
          ] as const
      )}
      bind:value={desk.template.length}
    />
    <p class="text-quiet">
      The talk has {plural(guidance.talkWords, 'word', 'words')} in {formatMinutes(
        guidance.talkMinutes
      )}.
      {lengthLabels[guidance.suits]} suits: {lengthReasonLabels[guidance.reason]}.
    </p>
  </div>
{/if}
