<script lang="ts">
  import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { readAnswer } from '$lib/work/handOff.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  let { entry }: { entry: OutboxEntry } = $props();
  let problem = $state.raw<Problem | null>(null);

  async function refresh() {
    const done = await attempt(() => readAnswer(entry));
    problem = done.problem;
    if (!done.problem && !done.value) deck.say('No answer has come yet.');
  }
</script>

{#if entry.answer}
  <p>
    <a href={entry.answer} target="_blank" rel="noreferrer" class="break-all underline"
      >{entry.answer}</a
    >
  </p>
{:else}
  <button class="bare btn self-start btn-sm" onclick={refresh}>Check for an answer</button>
{/if}
{#if problem}<ProblemNote {problem} />{/if}
