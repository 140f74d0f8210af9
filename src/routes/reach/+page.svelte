<script lang="ts">
  import { DateTime } from 'luxon';
  import { dateOfDay } from '$lib/core/reach/day.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { formatDate, plural } from '$lib/ui/messages.ts';
  import Claims from '$lib/ui/reach/Claims.svelte';
  import Hours from '$lib/ui/reach/Hours.svelte';
  import LogDialog from '$lib/ui/reach/LogDialog.svelte';
  import Ranked from '$lib/ui/reach/Ranked.svelte';
  import ReachFigure from '$lib/ui/reach/ReachFigure.svelte';
  import { CatalogueReach, RANGES, rangeLabels } from '$lib/ui/reach/reachState.svelte.ts';
  import Sources from '$lib/ui/reach/Sources.svelte';
  import TopItems from '$lib/ui/reach/TopItems.svelte';
  import TableDialog from '$lib/ui/reach/TableDialog.svelte';
  import { readNow } from '$lib/ui/readNow.ts';
  import { exportReachCsv } from '$lib/work/reach/exportReach.ts';

  import { attempt } from '$lib/work/tasks.svelte.ts';

  const reach = new CatalogueReach();
  let isLogOpen = $state(false);
  let isTableOpen = $state(false);

  async function exportCsv() {
    const name = `reach-${DateTime.now().toISODate()}`;
    const { value: count } = await attempt(() => exportReachCsv(name, reach.from));
    if (count !== null) deck.say(`Figures of ${plural(count, 'item', 'items')} exported.`);
  }
</script>

<svelte:head><title>Reach · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-7xl flex-col gap-4 px-3 py-2">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h1 class="text-lg font-semibold">Reach</h1>
      {#if reach.isRead && !reach.isEmpty}
        <label class="flex items-center gap-2 text-sm"
          ><span class="sr-only">Time shown</span>
          <select class="field py-1" bind:value={reach.range}>
            {#each RANGES as range (range)}<option value={range}>{rangeLabels[range]}</option
              >{/each}
          </select></label
        >
        <label class="flex items-center gap-2 text-sm"
          ><span class="sr-only">Figures shown</span>
          <select class="field py-1" bind:value={reach.measure}>
            <option value="reach">Views and visits</option>
            <option value="likes">Likes</option>
            <option value="comments">Comments</option>
          </select></label
        >
        <label class="flex items-center gap-2 text-sm"
          ><span class="sr-only">Place</span>
          <select class="field max-w-48 py-1" bind:value={reach.placeId}>
            <option value="">All places</option>
            {#each reach.places as [id, name] (id)}<option value={id}>{name}</option>{/each}
          </select></label
        >
        <div class="text-sm">
          <Choice
            legend="Shown"
            options={[
              ['day', 'By day'],
              ['total', 'Total']
            ]}
            bind:value={reach.by}
          />
        </div>
      {/if}
      <span class="ml-auto flex flex-wrap gap-1">
        <button class="plain btn btn-sm" onclick={() => (isLogOpen = true)}
          >Import access log…</button
        >
        <button class="plain btn btn-sm" onclick={() => (isTableOpen = true)}>Import CSV…</button>
        {#if !reach.isEmpty}
          <button class="bare btn btn-sm" onclick={exportCsv}>Export CSV</button>
          <a class="bare btn btn-sm" href="/reach/report">Monthly report</a>
        {/if}
      </span>
    </header>
    {#if reach.isEmpty}
      <EmptyState title="No figures yet">
        <p>
          Views, likes and comments are kept each time your places are read, so that they become
          curves. Visits come from the access log of your blog.
        </p>
        {#snippet actions()}
          <button class="strong btn btn-sm" onclick={() => readNow()}>Refresh</button>
          <a class="plain btn btn-sm" href="/places">Go to Places</a>
        {/snippet}
      </EmptyState>
    {:else if reach.isRead}
      <div class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
        <div class="flex min-w-0 flex-col gap-4">
          <ReachFigure title="Reach by day" fileName="reach" chart={reach.chart} />
          {#if reach.since}
            <p class="text-sm text-quiet">
              Figures begin on {formatDate(dateOfDay(reach.since))}. Import a CSV file of your
              channel for earlier days.
            </p>
          {/if}
          {#if reach.overview}
            {@const { better, lost, compared, top } = reach.overview}
            <div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
              <Ranked
                title="Better than usual for their age"
                none={compared > 0
                  ? `None of ${compared} stands out.`
                  : 'Too few items of a kind to say what is usual.'}
                items={better}
                titles={reach.titles}
              />
              <Ranked
                title="Hardly found"
                none={compared > 0
                  ? `None of ${compared} lags far behind.`
                  : 'Too few items of a kind to say what is usual.'}
                items={lost}
                titles={reach.titles}
              />
            </div>
            <TopItems items={top} titles={reach.titles} />
          {:else}
            <p class="text-sm text-quiet" role="status">Comparing items…</p>
          {/if}
        </div>
        <div class="flex flex-col gap-4">
          <Hours rhythm={reach.rhythm} />
          <Sources
            sources={reach.sources}
            nameOf={reach.sourceName}
            none="Not known yet. Import the access log of your blog."
          />
          {#if reach.overview}
            <Claims
              claims={reach.overview.claims}
              laneName={reach.laneName}
              placeName={reach.placeName}
            />
          {/if}
        </div>
      </div>
    {/if}
  </div>
</div>
{#if isLogOpen}
  <LogDialog blogs={reach.blogs.value ?? []} onclose={() => (isLogOpen = false)} />
{/if}
{#if isTableOpen}<TableDialog onclose={() => (isTableOpen = false)} />{/if}
