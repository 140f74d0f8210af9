<script lang="ts">
  import { plural } from '$lib/ui/messages.ts';
  import { dayName } from './calendarMessages.ts';
  import type { Calendar } from './calendarState.svelte.ts';

  let { calendar, date, inReview }: { calendar: Calendar; date: string; inReview: number } =
    $props();
  const gap = $derived(inReview > 0 ? calendar.gaps.get(date) : undefined);
</script>

{#if gap}
  <button
    class="self-start rounded-base px-1 text-left text-xs text-quiet underline"
    aria-label="Fill {plural(gap.days, 'empty day', 'empty days')} from {dayName(
      date
    )} with what is in review"
    onclick={() => (calendar.filling = date)}>Fill from review ({inReview})</button
  >
{/if}
