<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import CountField from '$lib/ui/CountField.svelte';
  import Names from '$lib/ui/desk/Names.svelte';
  import WordSuggestions from './WordSuggestions.svelte';
  import ForeseenNote from '../ForeseenNote.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
</script>

<div class="flex flex-col gap-3">
  <ForeseenNote {lane} />
  <Choice
    legend="Which and in which order"
    options={[
      ['new', 'Only new items'],
      ['newest-first', 'The catalogue, newest first'],
      ['oldest-first', 'The catalogue, oldest first'],
      ['most-seen-first', 'The catalogue, most viewed first']
    ]}
    bind:value={lane.filter.scope}
  />
  <div class="grid grid-cols-2 gap-3 md:grid-cols-3 lg:grid-cols-6">
    <CountField label="Most in total" bind:value={lane.filter.mostInAll} />
    <CountField label="Not older than (days)" bind:value={lane.filter.notOlderThan} />
    <CountField label="At least (minutes)" unit={60} step={0.5} bind:value={lane.filter.shortest} />
    <CountField label="At most (minutes)" unit={60} step={0.5} bind:value={lane.filter.longest} />
    <CountField label="Fewest words" bind:value={lane.filter.fewestWords} />
    <CountField label="Most words" bind:value={lane.filter.mostWords} />
  </div>
  <div class="flex flex-wrap gap-4">
    {#each [['publicOnly', 'Public only'], ['needsCaptions', 'With captions'], ['needsPicture', 'With a picture']] as const as [field, label] (field)}
      <label class="flex items-center gap-2"
        ><input type="checkbox" bind:checked={lane.filter[field]} /> {label}</label
      >
    {/each}
  </div>
  <div class="grid gap-3 md:grid-cols-2">
    {#each [['keep', 'Must contain one of these words'], ['drop', 'Must not contain these words'], ['languages', 'Languages (codes, such as en)'], ['tags', 'Categories or tags, one of them']] as const as [field, label] (field)}
      <div class="flex flex-col gap-1">
        <Names
          {label}
          value={lane.filter[field]}
          onchange={(words) => {
            lane.filter[field] = words;
          }}
        />
        {#if field === 'keep' || field === 'tags'}
          <WordSuggestions
            {lane}
            kind={field === 'tags' ? 'tags' : 'words'}
            given={lane.filter[field]}
            onadd={(word) => (lane.filter[field] = [...lane.filter[field], word])}
          />
        {/if}
      </div>
    {/each}
  </div>
  <div class="flex flex-wrap items-center gap-3">
    <Choice
      legend="Other people’s"
      shown="beside"
      options={[
        ['never', 'Never'],
        ['licensed', 'With an open licence, and credit'],
        ['permitted', 'Also with a permission']
      ]}
      bind:value={lane.filter.others}
    />
    {#if lane.filter.others === 'permitted'}
      <label class="flex flex-1 basis-56 items-center gap-2"
        >Which permission <input
          class="field min-w-0 flex-1"
          placeholder="Who gave it, when, for what"
          bind:value={lane.filter.permission}
        /></label
      >
    {/if}
  </div>
</div>
