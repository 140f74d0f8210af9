<script lang="ts">
  import { allPlaces } from '$lib/data/places.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import ForeseenNote from '../ForeseenNote.svelte';
  import Playlists from './Playlists.svelte';
  import SheetForm from './SheetForm.svelte';
  import WordSuggestions from './WordSuggestions.svelte';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
  const places = live(() => allPlaces);
  const { search } = $derived(lane.source);
  const offered = $derived(
    (places.value ?? []).filter(
      ({ kind }) =>
        lane.make.kind === 'update' || kind === (lane.make.kind === 'video' ? 'blog' : 'channel')
    )
  );
  const channels = $derived(
    offered.filter((p) => p.kind === 'channel' && lane.source.places.includes(p.id))
  );
  function choose(id: string, isOn: boolean) {
    const rest = lane.source.places.filter((p) => p !== id);
    lane.source.places = isOn ? [...rest, id] : rest;
  }
</script>

<div class="grid gap-3 md:grid-cols-2">
  <div class="md:col-span-2"><ForeseenNote {lane} /></div>
  <fieldset class="flex flex-col gap-1">
    <legend class="font-semibold">Read from</legend>
    {#each offered as place (place.id)}
      <label class="flex items-center gap-2">
        <input
          type="checkbox"
          checked={lane.source.places.includes(place.id)}
          onchange={(event) => choose(place.id, event.currentTarget.checked)}
        />
        {place.title}
      </label>
    {:else}
      <p>None is connected yet. <a href="/places">Connect one</a>.</p>
    {/each}
  </fieldset>
  {#if channels.length > 0}
    <Playlists bind:source={lane.source} {channels} />
  {/if}
  <Names
    label="Only by these people"
    value={lane.source.creators}
    onchange={(names) => {
      lane.source.creators = names;
    }}
  />
  {#each [['any', 'With any of these words'], ['all', 'With all of these words'], ['without', 'Without these words']] as const as [field, label] (field)}
    <div class="flex flex-col gap-1">
      <Names
        {label}
        value={search[field]}
        onchange={(words) => {
          lane.source.search[field] = words;
        }}
      />
      {#if field === 'any'}
        <WordSuggestions
          {lane}
          kind="words"
          given={search.any}
          onadd={(word) => (lane.source.search.any = [...search.any, word])}
        />
      {/if}
    </div>
  {/each}
  <div class="grid grid-cols-2 gap-2">
    <div class="flex flex-col gap-1">
      <label class="flex flex-col gap-1"
        >Exactly these words <input class="field" bind:value={lane.source.search.phrase} /></label
      >
      {#if !search.phrase.trim()}
        <WordSuggestions
          {lane}
          kind="phrases"
          given={search.any}
          onadd={(words) => (lane.source.search.phrase = words)}
        />
      {/if}
    </div>
    <label class="flex flex-col gap-1"
      >Hashtag <input class="field" bind:value={lane.source.search.hashtag} /></label
    >
  </div>
  <div class="md:col-span-2"><SheetForm bind:lane /></div>
</div>
