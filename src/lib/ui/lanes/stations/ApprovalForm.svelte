<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
</script>

<div class="flex flex-col gap-3">
  <Choice
    legend="How it goes out"
    options={[
      ['after-review', 'Wait for my approval'],
      ['if-no-check-complains', 'Publish if no check complains, else wait for my approval'],
      ['always', 'Publish without approval']
    ]}
    bind:value={lane.approval.mode}
  />
  {#if lane.make.kind === 'post'}
    <Choice
      legend="When a video changes after its post is published"
      shown="above"
      isStacked
      options={[
        ['ask', 'Show the post as drifted'],
        ['untouched', 'Update posts that nobody edited; show the others as drifted'],
        ['merge', 'Update all that does not conflict with your edits; show conflicts as drifted']
      ]}
      bind:value={lane.approval.upToDate}
    />
  {/if}
</div>
