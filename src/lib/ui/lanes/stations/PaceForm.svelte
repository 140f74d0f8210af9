<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { allowancesOf } from '$lib/data/allowances.ts';
  import CountField from '$lib/ui/CountField.svelte';
  import { DAYS } from '$lib/ui/laneMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
  const allowances = live(() => {
    const ids = lane.targets.map((t) => t.placeId);
    return () => allowancesOf(ids);
  });
  const zones = Intl.supportedValuesOf('timeZone');
  function day(number: number, isOn: boolean) {
    const rest = lane.pace.weekdays.filter((d) => d !== number);
    // At least one day stays.
    lane.pace.weekdays = isOn ? [...rest, number] : rest.length > 0 ? rest : lane.pace.weekdays;
  }
  function hours(change: Partial<Lane['pace']['hours']>) {
    const next = { ...lane.pace.hours, ...change };
    if (Number.isInteger(next.from) && Number.isInteger(next.to) && next.from < next.to)
      lane.pace.hours = next;
  }
</script>

<div class="flex flex-col gap-3">
  <div class="grid grid-cols-2 gap-3 md:grid-cols-5">
    <CountField label="Most per run" bind:value={lane.pace.perRun} />
    <CountField label="Most per day" bind:value={lane.pace.perDay} />
    <CountField label="Most per week" bind:value={lane.pace.perWeek} />
    <CountField label="Add one per day every … days" bind:value={lane.pace.rampDays} />
    <CountField
      label="Minutes between items"
      bind:value={() => lane.pace.gap, (gap) => (lane.pace.gap = gap ?? 0)}
    />
  </div>
  <fieldset class="flex flex-wrap gap-3">
    <legend class="sr-only">Weekdays</legend>
    {#each DAYS as name, i (name)}
      <label class="flex items-center gap-1"
        ><input
          type="checkbox"
          checked={lane.pace.weekdays.includes(i + 1)}
          onchange={(event) => day(i + 1, event.currentTarget.checked)}
        />
        {name}</label
      >
    {/each}
  </fieldset>
  <div class="flex flex-wrap items-end gap-3">
    {#each [['from', 'From (hour)', 0, 23], ['to', 'To (hour)', 1, 24]] as const as [end, label, min, max] (end)}
      <label class="flex flex-col gap-1"
        >{label}
        <input
          class="field w-20"
          type="number"
          {min}
          {max}
          value={lane.pace.hours[end]}
          onchange={(event) => hours({ [end]: Number(event.currentTarget.value) })}
        /></label
      >
    {/each}
    <label class="flex flex-col gap-1"
      >First day
      <input
        class="field w-auto"
        type="date"
        value={lane.pace.notBefore ?? ''}
        onchange={(event) => (lane.pace.notBefore = event.currentTarget.value || null)}
      /></label
    >
    <label class="flex flex-col gap-1"
      >Time zone
      <select class="field" bind:value={lane.pace.zone}>
        {#if !zones.includes(lane.pace.zone)}<option>{lane.pace.zone}</option>{/if}
        {#each zones as zone (zone)}<option>{zone}</option>{/each}
      </select></label
    >
  </div>
  {#if allowances.value && allowances.value.length > 0}
    <ul aria-label="Allowances">
      {#each allowances.value as { title, most, per, left, asOf, used } (title)}
        <li>
          {title}: {Math.max(0, left - used.filter((time) => time >= asOf).length)} of {most} left this
          {per}. No more than that is published, whatever the pace.
        </li>
      {/each}
    </ul>
  {/if}
</div>
