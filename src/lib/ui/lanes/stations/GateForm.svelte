<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
</script>

<fieldset class="flex flex-col gap-1" {onchange}>
  <legend class="sr-only">How it goes out</legend>
  {#each [['after-review', 'What is made waits until you have looked at it'], ['if-no-check-complains', 'Straight out if no check complains; else it waits for you'], ['always', 'Straight out']] as const as [value, label] (value)}
    <label class="flex items-center gap-2"
      ><input type="radio" name="gate-{lane.id}" {value} bind:group={lane.gate.opens} />
      {label}</label
    >
  {/each}
</fieldset>
