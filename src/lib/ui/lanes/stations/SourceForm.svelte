<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { db } from '$lib/data/db.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { live } from '$lib/ui/live.svelte.ts';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
  const places = live(() => () => db.places.toArray());
  const { search } = $derived(lane.source);
  function choose(id: string, isOn: boolean) {
    const rest = lane.source.places.filter((p) => p !== id);
    lane.source.places = isOn ? [...rest, id] : rest;
    onchange();
  }
</script>

<div class="grid gap-3 md:grid-cols-2" {onchange}>
  <fieldset class="flex flex-col gap-1">
    <legend class="font-semibold">Read from</legend>
    {#each (places.value ?? []).filter((p) => lane.make.kind === 'update' || p.kind === (lane.make.kind === 'video' ? 'blog' : 'channel')) as place (place.id)}
      <label class="flex items-center gap-2">
        <input
          type="checkbox"
          checked={lane.source.places.includes(place.id)}
          onchange={(event) => choose(place.id, event.currentTarget.checked)}
        />
        {place.title}
      </label>
    {:else}
      <p>No such place is linked yet. <a href="/places">Link one</a>.</p>
    {/each}
  </fieldset>
  <Names
    label="Only by these people"
    value={lane.source.creators}
    onchange={(names) => {
      lane.source.creators = names;
      onchange();
    }}
  />
  <Names
    label="With any of these words"
    value={search.any}
    onchange={(words) => {
      lane.source.search.any = words;
      onchange();
    }}
  />
  <Names
    label="With all of these words"
    value={search.all}
    onchange={(words) => {
      lane.source.search.all = words;
      onchange();
    }}
  />
  <Names
    label="Without these words"
    value={search.without}
    onchange={(words) => {
      lane.source.search.without = words;
      onchange();
    }}
  />
  <div class="grid grid-cols-2 gap-2">
    <label class="flex flex-col gap-1"
      >Exactly these words <input class="field" bind:value={lane.source.search.phrase} /></label
    >
    <label class="flex flex-col gap-1"
      >Hashtag <input class="field" bind:value={lane.source.search.hashtag} /></label
    >
  </div>
</div>
