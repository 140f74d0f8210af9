<script lang="ts">
  import type { ListPage } from '$lib/core/listPages/listPage.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { groupLabels, listsLabels, orderLabels, styleLabels } from './listPageMessages.ts';
  import type { ListPageState } from './listPageState.svelte.ts';

  interface Props {
    view: ListPageState;
    page: ListPage;
  }
  let { view, page = $bindable() }: Props = $props();
  const optionsOf = <T extends string>(labels: Record<T, string>) =>
    Object.entries(labels) as [T, string][];
  const onlyOptions = $derived([
    ['all', `All ${page.lists}`] as const,
    ['tag', 'With a tag'] as const,
    ...(page.lists === 'videos' ? [['playlist', 'In a playlist'] as const] : [])
  ]);

  /** Where items of this kind stand. */
  const sources = $derived(
    view.places.filter(({ kind }) => kind === (page.lists === 'videos' ? 'channel' : 'blog'))
  );
  function choosePlace(id: string, isChosen: boolean) {
    const all = sources.map((place) => place.id);
    const before = page.places.length === 0 ? all : page.places;
    const next = isChosen ? [...before, id] : before.filter((other) => other !== id);
    // None are all; and all of them are those that are connected later, too.
    page.places = next.length === all.length ? [] : next;
  }

  async function chooseBy() {
    if (page.only.by === 'playlist' && view.playlists.length === 0) await view.findPlaylists();
    page.only.name = page.only.by === 'playlist' ? (view.playlists[0]?.url ?? '') : '';
  }
</script>

<div class="flex flex-col gap-3 text-sm">
  <label class="flex flex-col gap-1 font-semibold">
    Title <input class="field font-normal" bind:value={page.title} required />
  </label>
  <label class="flex flex-col gap-1 font-semibold">
    Text above the list
    <textarea class="field font-normal" rows="3" bind:value={page.intro}></textarea>
  </label>
  <Choice
    legend="Lists"
    shown="above"
    options={optionsOf(listsLabels)}
    bind:value={page.lists}
    onchange={() => {
      page.places = [];
      if (page.only.by === 'playlist') page.only = { by: 'all', name: '' };
    }}
  />
  {#if sources.length > 1}
    <fieldset class="flex flex-col gap-1">
      <legend class="pb-1 font-semibold">From</legend>
      {#each sources as { id, title } (id)}
        <label class="flex items-center gap-1.5"
          ><input
            type="checkbox"
            bind:checked={
              () => page.places.length === 0 || page.places.includes(id),
              (isChosen) => choosePlace(id, isChosen)
            }
          />
          {title}</label
        >
      {/each}
    </fieldset>
  {/if}
  <Choice
    legend="Which ones"
    shown="above"
    options={onlyOptions}
    bind:value={page.only.by}
    onchange={chooseBy}
  />
  {#if page.only.by === 'tag'}
    <label class="flex flex-col gap-1 font-semibold">
      Tag <input class="field font-normal" list="tags-in-use" bind:value={page.only.name} />
      <datalist id="tags-in-use">
        {#each view.tags as tag (tag)}<option value={tag}></option>{/each}
      </datalist>
    </label>
  {:else if page.only.by === 'playlist'}
    {#if view.playlists.length === 0}
      <p>
        No playlist is known yet.
        <button class="plain btn btn-sm" type="button" onclick={() => view.findPlaylists()}
          >Find playlists</button
        >
      </p>
    {:else}
      <label class="flex flex-col gap-1 font-semibold">
        Playlist
        <select class="field font-normal" bind:value={page.only.name}>
          {#each view.playlists as { url, title } (url)}<option value={url}>{title}</option>{/each}
        </select>
      </label>
    {/if}
  {/if}
  <Choice legend="Order" shown="above" options={optionsOf(orderLabels)} bind:value={page.order} />
  <Choice
    legend="Headings"
    shown="above"
    isStacked
    options={optionsOf(groupLabels)}
    bind:value={page.groups}
  />
  <Choice
    legend="Each item"
    shown="above"
    options={optionsOf(styleLabels)}
    bind:value={page.style}
  />
  <div class="flex flex-wrap gap-x-4 gap-y-1">
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" bind:checked={page.hasDates} /> Dates</label
    >
    {#if page.lists === 'videos'}
      <label class="flex items-center gap-1.5"
        ><input type="checkbox" bind:checked={page.hasLengths} /> Lengths</label
      >
    {/if}
    <label class="flex items-center gap-1.5"
      >At most
      <input
        class="field w-20"
        type="number"
        min="1"
        max="1000"
        value={page.most}
        onchange={(event) => {
          const most = Math.round(event.currentTarget.valueAsNumber);
          page.most = Number.isFinite(most) ? Math.min(1000, Math.max(1, most)) : 500;
          event.currentTarget.value = String(page.most);
        }}
      />
      items</label
    >
  </div>
  <label class="flex items-center gap-2 font-semibold"
    >Language of dates
    <select class="field w-auto font-normal" bind:value={page.language}>
      <option value="en">English</option>
      <option value="de">German</option>
    </select></label
  >
</div>
