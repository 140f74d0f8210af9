<script lang="ts">
  import { page } from '$app/state';
  import { dateOfDay } from '$lib/core/reach/day.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { formatDate, formatDateTime } from '$lib/ui/messages.ts';
  import HalfTotals from '$lib/ui/reach/HalfTotals.svelte';
  import ReachFigure from '$lib/ui/reach/ReachFigure.svelte';
  import { momentMessage } from '$lib/ui/reach/reachMessages.ts';
  import Sources from '$lib/ui/reach/Sources.svelte';
  import { TwinReachView, updateMessage } from '$lib/ui/reach/twinReachState.svelte.ts';
  import { exportReachCsv } from '$lib/work/reach/exportReach.ts';

  import { attempt } from '$lib/work/tasks.svelte.ts';

  const id = $derived(page.params.id ?? '');
  const view = new TwinReachView(() => id);
  const title = $derived(view.twin?.title ?? '');

  async function exportCsv() {
    const ids = view.rows.map((row) => row.id);
    const { problem } = await attempt(() => exportReachCsv('reach-of-twin', view.from, ids));
    if (!problem) deck.say(`Figures of “${title}” exported.`);
  }
</script>

<svelte:head><title>{title ? `Reach of ${title}` : 'Reach'} · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  {#if view.isRead && !view.twin}
    <EmptyState title="This twin is not here any more">
      <p>Its place may have been disconnected, or the item was deleted there.</p>
      {#snippet actions()}<a class="strong btn btn-sm" href="/reach">Go to Reach</a>{/snippet}
    </EmptyState>
  {:else if view.twin}
    {@const { posts, updates } = view.twin}
    <div class="mx-auto flex max-w-7xl flex-col gap-4 px-3 py-2">
      <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 class="min-w-0 text-lg font-semibold wrap-anywhere">
          <a class="text-quiet underline" href="/reach">Reach</a>
          <span aria-hidden="true" class="text-quiet">/</span>
          {title}
        </h1>
        <span class="ml-auto"
          ><button class="bare btn btn-sm" onclick={exportCsv}>Export CSV</button></span
        >
      </header>
      <div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        <label
          ><span class="sr-only">Time shown</span>
          <select class="field py-1" bind:value={view.span}>
            <option value={0}>All days known</option>
            <option value={28}>Last 28 days</option>
            <option value={90}>Last 90 days</option>
          </select></label
        >
        <label
          ><span class="sr-only">Figures shown</span>
          <select class="field py-1" bind:value={view.measure}>
            <option value="reach">Views and visits</option>
            <option value="likes">Likes</option>
            <option value="comments">Comments</option>
          </select></label
        >
        <Choice
          legend="Shown"
          options={[
            ['day', 'By day'],
            ['total', 'Total']
          ]}
          bind:value={view.by}
        />
      </div>
      <div class="grid gap-3 md:grid-cols-2">
        {#each view.halves as half (half.item.id)}<HalfTotals {half} />{/each}
      </div>
      {#if view.falls.length > 0}
        <ul class="border-y border-line py-1 text-sm" aria-label="Counters that fell">
          {#each view.falls as { title: of, counter, on, from, to } (`${of} ${counter} ${on}`)}
            <li>
              {counter} of “{of}” fell from {from.toLocaleString('en')} to {to.toLocaleString('en')}
              on {formatDate(dateOfDay(on))}. The place counted anew or took something out.
            </li>
          {/each}
        </ul>
      {/if}
      <ReachFigure title="Reach of {title}" fileName="reach-of-twin" chart={view.chart} />
      <div class="grid gap-x-8 gap-y-4 md:grid-cols-2 lg:grid-cols-3">
        <section aria-labelledby="moments-title" class="flex flex-col gap-1">
          <h2 id="moments-title" class="font-semibold">What happened</h2>
          <ol class="text-sm">
            {#each view.moments as moment (moment.number)}
              <li class="flex gap-2 border-t border-line py-1">
                <span class="figures w-5 shrink-0 text-right text-quiet">{moment.number}</span>
                <span class="min-w-0 wrap-anywhere"
                  >{momentMessage(moment)}{moment.side === 'update' ? `: ${moment.title}` : ''}
                  <span class="block text-quiet"
                    >{formatDateTime(new Date(moment.at).toISOString())}{moment.day < view.from
                      ? ', before the first day shown'
                      : ''}</span
                  ></span
                >
              </li>
            {/each}
          </ol>
        </section>
        <section aria-labelledby="updates-title" class="flex flex-col gap-1">
          <h2 id="updates-title" class="font-semibold">Its updates</h2>
          {#if updates.length === 0}
            <p class="text-sm text-quiet">
              It was not shared yet. <a
                class="underline"
                href="/updates/{posts[0]?.item.id ?? view.twin.video?.item.id}">Share it</a
              >.
            </p>
          {:else}
            <ul class="text-sm">
              {#each updates as update (update.key)}
                <li class="border-t border-line py-1 wrap-anywhere">
                  {update.title}
                  <span class="block text-quiet"
                    >{updateMessage(update, view.visitsOf(update))}</span
                  >
                </li>
              {/each}
            </ul>
          {/if}
        </section>
        <Sources
          sources={view.sources}
          nameOf={view.sourceName}
          none={posts.length > 0
            ? 'Not known yet. Import the access log of your blog.'
            : 'There is no post yet.'}
        />
      </div>
    </div>
  {/if}
</div>
