<script lang="ts">
  import { MANNERS } from '$lib/core/lang/wordings.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import CountField from '$lib/ui/CountField.svelte';
  import { mannerLabels } from '$lib/ui/updateMessages.ts';
  import LookOfVideos from './LookOfVideos.svelte';
  import LayoutRules from './LayoutRules.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
  let stepLimit = $derived<number | null>(lane.make.stepLimit);
</script>

<div class="flex flex-col gap-3">
  <Choice
    legend="What is made"
    options={[
      ['post', 'A post of each video'],
      ['video', 'A narrated video of each post'],
      ['update', 'An update of each item']
    ]}
    bind:value={lane.make.kind}
    onchange={() => {
      // Other kinds are read and placed elsewhere.
      lane.source.places = [];
      lane.source.playlists = [];
      lane.targets = [];
    }}
  />
  {#if lane.make.kind === 'update'}
    <Choice
      legend="Form"
      options={[
        ['text', 'A short text'],
        ['poll', 'A poll'],
        ['quiz', 'A quiz']
      ]}
      bind:value={lane.make.form}
    />
    {#if lane.make.form === 'text'}
      <Choice
        legend="Tone"
        options={MANNERS.map((manner) => [manner, mannerLabels[manner]] as const)}
        bind:value={lane.make.manner}
      />
    {:else}
      <p class="text-quiet">
        The first question that is drawn from the item. An item that gives none is left out, with
        the reason.
      </p>
    {/if}
  {:else if lane.make.kind === 'post'}
    <LayoutRules bind:make={lane.make} />
  {:else}
    <LookOfVideos bind:look={lane.make.look} />
  {/if}
  <div class="w-56">
    <CountField
      label="Give up on an item after (minutes)"
      bind:value={() => stepLimit, (minutes) => (lane.make.stepLimit = minutes ?? 10)}
    />
  </div>
</div>
