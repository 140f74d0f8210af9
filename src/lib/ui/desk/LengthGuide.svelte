<script lang="ts">
  import { estimateLength, LENGTH_RANGE } from '$lib/core/article/extract/length.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { lengthReasonLabels, lengthLabels, formatMinutes } from '$lib/ui/talkMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const guidance = $derived(desk.talk?.guidance);
  const estimate = $derived(guidance && estimateLength(guidance, desk.template.length));
  /** The length in a hundred, also of one that has a name. */
  const percent = $derived(
    typeof desk.template.length === 'number'
      ? desk.template.length
      : Math.round((100 * (estimate?.words ?? 0)) / Math.max(1, guidance?.talkWords ?? 1))
  );
  const about = ({ words, minutes }: { words: number; minutes: number }) =>
    `about ${plural(words, 'word', 'words')}, ${formatMinutes(minutes)}`;
</script>

{#if guidance && estimate}
  <details class="text-sm">
    <summary>
      Length of the article:
      <span class="font-semibold"
        >{typeof desk.template.length === 'number'
          ? `${percent} % of what is said`
          : lengthLabels[desk.template.length]}</span
      ><span class="text-quiet">, {about(estimate)}</span>
    </summary>
    <div class="flex flex-col gap-1 py-1">
      <Choice
        legend="Length of the article"
        options={guidance.lengths.map(
          (guide) => [guide.length, lengthLabels[guide.length], about(guide)] as const
        )}
        bind:value={desk.template.length}
      />
      <label class="grid grid-cols-[5.5rem_1fr_3rem] items-center gap-2">
        Any length
        <input
          type="range"
          min={LENGTH_RANGE.least}
          max={LENGTH_RANGE.most}
          step="5"
          value={percent}
          aria-valuetext="{percent} % of what is said, {about(estimate)}"
          onchange={(event) => (desk.template.length = Number(event.currentTarget.value))}
        />
        <span class="figures text-right">{percent} %</span>
      </label>
      {#if typeof desk.template.length === 'number'}
        <p>{percent} % of what is said: {about(estimate)}.</p>
      {/if}
      <p class="text-quiet">
        The talk has {plural(guidance.talkWords, 'word', 'words')} in {formatMinutes(
          guidance.talkMinutes
        )}.
        {lengthLabels[guidance.suits]} suits: {lengthReasonLabels[guidance.reason]}.
      </p>
    </div>
  </details>
{/if}
