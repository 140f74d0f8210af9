<script lang="ts">
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { MediaQuery } from 'svelte/reactivity';
  import { page } from '$app/state';
  import { dateOf, dayAfter } from '$lib/core/calendar/grid.ts';
  import { recordsInReview } from '$lib/data/lanes.ts';
  import { countIn } from '$lib/data/outbox.ts';
  import { Calendar, timeZone, VIEWS, type View } from '$lib/ui/calendar/calendarState.svelte.ts';
  import { monthName, weekName } from '$lib/ui/calendar/calendarMessages.ts';
  import BusyDialog from '$lib/ui/calendar/BusyDialog.svelte';
  import DayList from '$lib/ui/calendar/DayList.svelte';
  import GapDialog from '$lib/ui/calendar/GapDialog.svelte';
  import EntryDialog from '$lib/ui/calendar/EntryDialog.svelte';
  import Month from '$lib/ui/calendar/Month.svelte';
  import Remaining from '$lib/ui/calendar/Remaining.svelte';
  import Week from '$lib/ui/calendar/Week.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { exportCalendar } from '$lib/work/calendar.ts';

  const today = dateOf(Date.now(), timeZone);
  const isNarrow = new MediaQuery('width < 40rem');
  const VIEW_NAMES: Record<View, string> = { month: 'Month', week: 'Week', list: 'List' };
  const asked = (name: string) => page.url.searchParams.get(name) ?? '';
  // There is no room for a grid on a phone.
  const view = $derived<View>(
    isNarrow.current ? 'list' : (VIEWS.find((one) => one === asked('view')) ?? 'month')
  );
  const date = $derived(/^\d{4}-\d\d-\d\d$/.test(asked('date')) ? asked('date') : today);
  const calendar = new Calendar(
    () => view,
    () => date
  );
  let isBusyOpen = $state(false);
  const fromLanes = live(() => async () => (await recordsInReview()).length);
  const inReview = live(() => () => countIn('in-review'));
  const by = $derived(view === 'week' ? 'weeks' : 'months');
  const hrefOf = (to: { view?: View; date?: string }) =>
    `/calendar?view=${to.view ?? view}&date=${to.date ?? date}`;
  const title = $derived(
    view === 'week'
      ? weekName(calendar.days[0]?.date ?? date, calendar.days.at(-1)?.date ?? date)
      : monthName(date)
  );

  async function exportFile() {
    const count = await exportCalendar();
    deck.say(
      count > 0
        ? `${plural(count, 'planned entry', 'planned entries')} exported as a calendar file.`
        : 'Nothing is planned, so the file is empty.'
    );
  }
</script>

<svelte:head><title>Calendar · Swift Twin</title></svelte:head>

<div class="flex h-full flex-col gap-2 px-3 py-2">
  <header class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <h1 class="text-lg font-semibold"><span class="sr-only">Calendar, </span>{title}</h1>
    <nav class="flex items-center gap-1" aria-label="Time shown">
      <a
        class="plain btn-icon btn-icon-sm"
        href={hrefOf({ date: dayAfter(date, { [by]: -1 }) })}
        aria-label={view === 'week' ? 'Previous week' : 'Previous month'}
        ><ChevronLeft aria-hidden="true" /></a
      >
      <a class="plain btn btn-sm" href={hrefOf({ date: today })}>Today</a>
      <a
        class="plain btn-icon btn-icon-sm"
        href={hrefOf({ date: dayAfter(date, { [by]: 1 }) })}
        aria-label={view === 'week' ? 'Next week' : 'Next month'}
        ><ChevronRight aria-hidden="true" /></a
      >
    </nav>
    {#if !isNarrow.current}
      <nav class="flex gap-1" aria-label="View as">
        {#each VIEWS as one (one)}
          <a
            class="btn btn-sm {one === view ? 'strong' : 'plain'}"
            href={hrefOf({ view: one })}
            aria-current={one === view ? 'page' : undefined}>{VIEW_NAMES[one]}</a
          >
        {/each}
      </nav>
    {/if}
    <label class="flex items-center gap-2 text-sm"
      ><span class="sr-only">Place</span>
      <select class="field max-w-48 py-1" bind:value={calendar.placeId}>
        <option value="">All places</option>
        {#each calendar.places as [id, name] (id)}<option value={id}>{name}</option>{/each}
      </select></label
    >
    {#if view !== 'list'}<p class="ml-auto text-sm text-quiet max-lg:hidden">
        Drag to move, or press Shift with an arrow key.
      </p>{/if}
    <span class="flex gap-1 {view === 'list' ? 'ml-auto' : 'max-lg:ml-auto'}">
      <button class="bare btn btn-sm" onclick={() => (isBusyOpen = true)}>Busy times</button>
      <button class="bare btn btn-sm" onclick={exportFile}>Export calendar</button>
    </span>
  </header>
  <div class="flex flex-wrap items-baseline gap-x-4 text-xs text-quiet">
    {#if inReview.value}<a href="/review">{plural(inReview.value, 'item', 'items')} in review</a
      >{/if}
    {#if view === 'week' && calendar.rhythm}
      <p>
        Shaded by when your audience was there: {plural(calendar.rhythm.visits, 'visit', 'visits')} in
        {plural(calendar.rhythm.days, 'day', 'days')}
      </p>
    {/if}
    <Remaining placeId={calendar.placeId} />
  </div>
  <div class="min-h-0 grow overflow-auto" tabindex="-1">
    {#if calendar.isRead && calendar.entries.length === 0}
      <p class="pb-2 text-sm text-quiet">
        {view === 'week' ? 'Nothing goes out this week.' : 'Nothing goes out this month.'}
        {#if calendar.placeId}Other places are hidden by the filter.{:else}Schedule something on the
          desk, in the booth or in Updates, or <a href="/lanes">set up a lane</a>.{/if}
      </p>
    {/if}
    {#if view === 'month'}
      <Month
        {calendar}
        linkTo={(day) => hrefOf({ view: 'list', date: day })}
        inReview={fromLanes.value ?? 0}
      />
    {:else if view === 'week'}
      <Week {calendar} inReview={fromLanes.value ?? 0} />
    {:else}
      <DayList {calendar} from={date} inReview={fromLanes.value ?? 0} />
    {/if}
  </div>
</div>
{#if isBusyOpen}<BusyDialog onclose={() => (isBusyOpen = false)} />{/if}
{#if calendar.filling}<GapDialog {calendar} date={calendar.filling} />{/if}
{#if calendar.opened}
  {#key calendar.opened}
    <EntryDialog {calendar} entry={calendar.opened.entry} to={calendar.opened.to} />
  {/key}
{/if}
