<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable(), onchange }: StationProps = $props();
</script>

<div {onchange}>
  <Choice
    legend="How it goes out"
    options={[
      ['after-review', 'What is made waits until you have looked at it'],
      ['if-no-check-complains', 'Straight out if no check complains; else it waits for you'],
      ['always', 'Straight out']
    ]}
    bind:value={lane.gate.opens}
  />
</div>
