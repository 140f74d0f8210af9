<script lang="ts">
  import { live } from '$lib/ui/live.svelte.ts';
  import { readRemaining } from '$lib/work/calendar.ts';

  /** @param placeId of the one that is asked about, or empty for all */
  let { placeId }: { placeId: string } = $props();
  const all = live(() => readRemaining);
  const shown = $derived((all.value ?? []).filter((one) => !placeId || one.placeId === placeId));
  const PERIODS = { day: 'today', week: 'this week', month: 'this month' };
</script>

{#if shown.length > 0}
  <ul class="flex flex-wrap gap-x-4 {placeId ? '' : 'max-sm:hidden'}" aria-label="Allowances">
    {#each shown as { placeId: id, title, left, most, per, planned } (id)}
      <li class={planned > left ? 'font-semibold text-ink' : ''}>
        {title}: {left} of {most} left {PERIODS[per]}{planned > 0
          ? planned > left
            ? `, ${planned} planned: ${planned - left} too many`
            : `, ${planned} of them planned`
          : ''}
      </li>
    {/each}
  </ul>
{/if}
