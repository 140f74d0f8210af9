<script lang="ts">
  import { canPublish } from '$lib/core/model/place.ts';
  import { allNetworks } from '$lib/data/networks.ts';
  import { placesOfKind } from '$lib/data/places.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import type { StationProps } from './station.ts';

  let { lane = $bindable() }: StationProps = $props();
  const places = live(() => {
    const { kind } = lane.make;
    return async () =>
      kind !== 'update'
        ? (await placesOfKind(kind === 'post' ? 'blog' : 'channel')).map((p) => ({
            id: p.id,
            title: p.title,
            isReady: canPublish(p)
          }))
        : (await allNetworks()).map((n) => ({
            id: n.id,
            title: n.title,
            isReady: n.hasKey
          }));
  });
  const targetOf = (id: string) => lane.targets.find((t) => t.placeId === id);
  function choose(placeId: string, isOn: boolean) {
    const rest = lane.targets.filter((t) => t.placeId !== placeId);
    const added = {
      placeId,
      status: lane.make.kind === 'video' ? ('private' as const) : ('draft' as const),
      categories: [],
      tags: []
    };
    lane.targets = isOn ? [...rest, added] : rest;
  }
</script>

<div class="flex flex-col gap-3">
  {#each places.value ?? [] as place (place.id)}
    {@const target = targetOf(place.id)}
    <div class="flex flex-col gap-2">
      <label class="flex items-center gap-2 font-semibold">
        <input
          type="checkbox"
          checked={target !== undefined}
          disabled={!place.isReady && !target}
          onchange={(event) => choose(place.id, event.currentTarget.checked)}
        />
        {place.title}
        {#if !place.isReady}<a class="font-normal underline" href="/places">Give it a key</a>{/if}
      </label>
      {#if target}
        <div class="grid gap-3 pl-6 md:grid-cols-3">
          {#if lane.make.kind !== 'update'}
            <label class="flex flex-col gap-1"
              ><span class="font-semibold">Visibility</span>
              <select class="field" bind:value={target.status}>
                {#if lane.make.kind === 'post'}<option value="draft">Draft</option>{/if}
                <option value="private">Private</option>
                <option value="public">Public</option>
                {#if lane.make.kind === 'post'}<option value="dated">Scheduled at the blog</option
                  >{/if}
              </select></label
            >
            <Names
              label="Categories"
              value={target.categories}
              onchange={(names) => {
                target.categories = names;
              }}
            />
          {/if}
          <Names
            label={lane.make.kind !== 'update' ? 'Tags' : 'Hashtags always'}
            value={target.tags}
            onchange={(names) => {
              target.tags = names;
            }}
          />
        </div>
      {/if}
    </div>
  {:else}
    <p>No connected place can take it. <a href="/places">Connect one</a>.</p>
  {/each}
</div>
