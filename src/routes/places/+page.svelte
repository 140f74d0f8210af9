<script lang="ts">
  import { allNetworks } from '$lib/data/networks.ts';
  import { placesByKind } from '$lib/data/places.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ByHandPlaces from '$lib/ui/placesView/ByHandPlaces.svelte';
  import NetworkCard from '$lib/ui/placesView/NetworkCard.svelte';
  import KeyPassphrase from '$lib/ui/placesView/KeyPassphrase.svelte';
  import LinkForm from '$lib/ui/placesView/LinkForm.svelte';
  import PlaceCard from '$lib/ui/placesView/PlaceCard.svelte';

  let { data } = $props();
  const places = live(() => placesByKind);
  const networks = live(() => allNetworks);
  const told = $derived((networks.value ?? []).filter((n) => !n.isByHand));
  const byHand = $derived((networks.value ?? []).filter((n) => n.isByHand));
</script>

<svelte:head><title>Places · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-5xl flex-col gap-4 p-4">
    <header class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">Places</h1>
      <a class="plain ml-auto btn btn-sm" href="/archive">Archive</a>
    </header>
    <LinkForm />
    <div class="grid items-start gap-4 lg:grid-cols-2">
      {#each places.value ?? [] as place (place.id)}<PlaceCard {place} />{/each}
    </div>
    {#if told.length > 0}
      <h2 class="font-semibold">Networks for updates</h2>
      <div class="grid items-start gap-4 lg:grid-cols-2">
        {#each told as network (network.id)}<NetworkCard {network} />{/each}
      </div>
    {/if}
    <ByHandPlaces />
    {#if byHand.length > 0}
      <div class="grid items-start gap-4 lg:grid-cols-2">
        {#each byHand as network (network.id)}<NetworkCard {network} />{/each}
      </div>
    {/if}
    <KeyPassphrase />
    {#if places.value?.length === 0}
      <p class="text-sm text-quiet">
        Nothing is connected yet. Start with your channel, then connect the blog that goes with it.
      </p>
    {/if}
    {#if data.rehearsal}
      <p class="text-sm text-quiet">
        The rehearsal hosts run beside this application:
        <a href="{data.rehearsal}/channel/" target="_blank" rel="noreferrer">channel</a>,
        <a href="{data.rehearsal}/blog/" target="_blank" rel="noreferrer">blog</a> and
        <a href="{data.rehearsal}/control/" target="_blank" rel="noreferrer">behind the scenes</a>.
      </p>
    {/if}
  </div>
</div>
