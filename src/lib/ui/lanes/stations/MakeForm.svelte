<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { MANNERS } from '$lib/core/updates/wordings.ts';
  import { mannerWords } from '$lib/ui/updateWords.ts';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
</script>

<div class="flex flex-wrap gap-x-6 gap-y-2" {onchange}>
  <fieldset class="flex gap-3">
    <legend class="sr-only">What is made</legend>
    {#each [['post', 'A post of each video'], ['video', 'A narrated video of each post'], ['update', 'A short text of each item']] as const as [value, label] (value)}
      <label class="flex items-center gap-1"
        ><input
          type="radio"
          name="make-{lane.id}"
          {value}
          bind:group={lane.make.kind}
          onchange={() => {
            lane.source.places = [];
            lane.targets = [];
          }}
        />
        {label}</label
      >
    {/each}
  </fieldset>
  {#if lane.make.kind === 'update'}
    <fieldset class="flex gap-3">
      <legend class="sr-only">Manner</legend>
      {#each MANNERS as manner (manner)}
        <label class="flex items-center gap-1"
          ><input
            type="radio"
            name="manner-{lane.id}"
            value={manner}
            bind:group={lane.make.manner}
          />
          {mannerWords[manner]}</label
        >
      {/each}
    </fieldset>
  {:else}
    <p class="text-quiet">
      {lane.make.kind === 'post'
        ? 'Laid out as the last post that was placed from the desk for the same channel.'
        : 'In the voice, frame and look of the last one in the booth.'}
    </p>
  {/if}
</div>
