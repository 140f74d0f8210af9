<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
</script>

<div>
  <Choice
    legend="How it goes out"
    options={[
      ['after-review', 'Wait for my approval'],
      ['if-no-check-complains', 'Publish if no check complains, else wait for my approval'],
      ['always', 'Publish without approval']
    ]}
    bind:value={lane.approval.mode}
  />
</div>
