<script lang="ts">
  import { TWO_A_WEEK, type Spread } from '$lib/core/lanes/laneOfItems.ts';
  import CountField from '$lib/ui/CountField.svelte';

  interface Props {
    /** What is spread, as it begins a sentence: posts, videos. */
    what: string;
    spread: Spread;
  }
  let { what, spread = $bindable() }: Props = $props();
  /** One every hour of every day. */
  const MOST = 168;
  const within = (value: number, least: number, most: number) =>
    Math.min(most, Math.max(least, Math.round(value)));
</script>

<div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
  <CountField
    label="{what} a week"
    bind:value={() => spread.aWeek, (aWeek) => (spread.aWeek = within(aWeek ?? 1, 1, MOST))}
  />
  <CountField
    label="From (hour)"
    bind:value={() => spread.hour, (hour) => (spread.hour = within(hour ?? TWO_A_WEEK.hour, 0, 23))}
  />
  <label class="flex flex-col gap-1"
    >First day
    <input
      class="field"
      type="date"
      value={spread.firstDay ?? ''}
      onchange={(event) => (spread.firstDay = event.currentTarget.value || null)}
    /></label
  >
</div>
