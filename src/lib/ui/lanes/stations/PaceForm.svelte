<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { DAYS } from '$lib/ui/laneWords.ts';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
  const count = (text: string): number | null =>
    Number(text) > 0 ? Math.round(Number(text)) : null;
  const zones = Intl.supportedValuesOf('timeZone');
  function day(number: number, isOn: boolean) {
    const rest = lane.pace.weekdays.filter((d) => d !== number);
    // At least one day stays.
    lane.pace.weekdays = isOn ? [...rest, number] : rest.length > 0 ? rest : lane.pace.weekdays;
    onchange();
  }
  function hours(change: Partial<Lane['pace']['hours']>) {
    const next = { ...lane.pace.hours, ...change };
    if (Number.isInteger(next.from) && Number.isInteger(next.to) && next.from < next.to)
      lane.pace.hours = next;
  }
</script>

<div class="flex flex-col gap-3" {onchange}>
  <div class="grid grid-cols-2 gap-3 md:grid-cols-5">
    {#each [['perRun', 'Most in a run'], ['perDay', 'Most in a day'], ['perWeek', 'Most in a week'], ['rampDays', 'One more a day each … days']] as const as [field, label] (field)}
      <label class="flex flex-col gap-1"
        >{label}
        <input
          class="field"
          type="number"
          min="1"
          value={lane.pace[field] ?? ''}
          onchange={(event) => (lane.pace[field] = count(event.currentTarget.value))}
        /></label
      >
    {/each}
    <label class="flex flex-col gap-1"
      >Minutes between two <input
        class="field"
        type="number"
        min="0"
        bind:value={lane.pace.gap}
      /></label
    >
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
    <label class="flex flex-col gap-1"
      >From (hour) <input
        class="field w-20"
        type="number"
        min="0"
        max="23"
        value={lane.pace.hours.from}
        onchange={(event) => hours({ from: Number(event.currentTarget.value) })}
      /></label
    >
    <label class="flex flex-col gap-1"
      >To (hour) <input
        class="field w-20"
        type="number"
        min="1"
        max="24"
        value={lane.pace.hours.to}
        onchange={(event) => hours({ to: Number(event.currentTarget.value) })}
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
</div>
