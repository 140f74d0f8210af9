<script lang="ts">
  import Link2 from '@lucide/svelte/icons/link-2';
  import RefreshCw from '@lucide/svelte/icons/refresh-cw';
  import { goto } from '$app/navigation';
  import type { Standing, Twin } from '$lib/core/model/twin.ts';
  import { countStandings } from '$lib/core/twins/inStep.ts';
  import { allPlaces } from '$lib/data/places.ts';
  import { newestTwins } from '$lib/data/twins.ts';
  import { publishedByItem, type PublishedUpdate } from '$lib/data/publishedUpdates.ts';
  import { rowForKey } from '$lib/ui/listKeys.ts';
  import { readSetting } from '$lib/data/settings.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import SelectionBar from '$lib/ui/inStep/SelectionBar.svelte';
  import { toggleAside } from '$lib/ui/inStep/setAside.ts';
  import StandingFilter from '$lib/ui/inStep/StandingFilter.svelte';
  import StepChart from '$lib/ui/inStep/StepChart.svelte';
  import TwinRow from '$lib/ui/inStep/TwinRow.svelte';
  import { updatable } from '$lib/ui/inStep/updatable.ts';
  import { Rows } from '$lib/ui/rows.svelte.ts';
  import { withRange, withToggled } from '$lib/ui/selection.ts';
  import { readNow } from '$lib/ui/readNow.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { noneLabels } from '$lib/ui/messages.ts';
  import { emptyWithUndo } from '$lib/ui/startOver.ts';
  import { demoSchema } from '$lib/work/start.ts';
  import { z } from 'zod';
  import { tasks } from '$lib/work/tasks.svelte.ts';

  let { data } = $props();
  const firstVisitSchema = z.enum(['open', 'done']).optional();

  const places = live(() => allPlaces);
  // The first screens come first; the rest of a large catalogue follows when they are drawn.
  const newest = live(() => () => newestTwins(40));
  const rest = live<Twin[] | undefined>(() => {
    const isShown = newest.value !== undefined;
    return () => (isShown ? newestTwins() : undefined);
  });
  /** From the first look at nothing until the three steps are done. */
  const firstVisit = live(() => () => readSetting('firstVisit', firstVisitSchema));
  /** While nothing is opened by itself; what the three steps set going does not end them. */
  let hasNothing = $state(false);
  $effect(() => {
    if (places.value?.length === 0 && tasks.running.length === 0) hasNothing = true;
    else if (places.value && places.value.length > 0) hasNothing = false;
  });
  const isFirstVisit = $derived(hasNothing || firstVisit.value === 'open');
  const all = $derived(rest.value ?? newest.value);
  const counts = $derived(countStandings(all ?? []));
  const NONE_TOLD: ReadonlyMap<string, PublishedUpdate[]> = new Map();
  const told = live(() => publishedByItem);
  let chosen = $state<Standing | null>(null);
  const twins = $derived(chosen ? (all ?? []).filter((t) => t.standing === chosen) : (all ?? []));

  let scroller = $state<HTMLElement>();
  let width = $state(1280);
  const height = $derived(width < 768 ? 176 : 68);
  const rows = new Rows(
    () => scroller,
    () => ({ count: twins.length, height })
  );
  let current = $state(0);
  let selected = $state<ReadonlySet<string>>(new Set());
  let drifted = $state.raw<Twin | null>(null);
  /** As it is by now, while it is still drifted. */
  const shownDrift = $derived.by(() => {
    const id = drifted?.id;
    return all?.find((twin) => twin.id === id && twin.standing === 'drifted') ?? drifted;
  });
  const at = $derived(Math.min(current, Math.max(0, twins.length - 1)));

  /** Whoever comes back finds the same row, selection and filter. */
  let wanted = $state.raw<string | null>(null);
  export const snapshot = {
    capture: () => ({ chosen, selected: [...selected], at: twins[at]?.id ?? '' }),
    restore: (left: { chosen: Standing | null; selected: string[]; at: string }) => {
      chosen = left.chosen;
      selected = new Set(left.selected);
      wanted = left.at;
    }
  };
  $effect(() => {
    if (wanted === null || twins.length === 0) return;
    const row = twins.findIndex((twin) => twin.id === wanted);
    if (row < 0 && rest.value === undefined) return;
    wanted = null;
    if (row >= 0) void move(row);
  });

  async function move(to: number) {
    current = Math.max(0, Math.min(to, twins.length - 1));
    rows.show(current);
    // The row may have to be drawn first.
    for (let tries = 0; tries < 10; tries++) {
      const row = scroller?.querySelector<HTMLElement>(`[data-row="${current}"]`);
      if (row) return row.focus();
      await new Promise(requestAnimationFrame);
    }
  }

  /** Where a range that is selected with Shift begins. */
  let anchor = 0;
  function toggle(row: number, isRange = false) {
    const twin = twins[row];
    if (!twin) return;
    if (isRange)
      selected = withRange(
        selected,
        twins.map((t) => t.id),
        anchor,
        row
      );
    else {
      selected = withToggled(selected, twin.id);
      anchor = row;
    }
  }
  function selectAll() {
    selected = new Set(twins.map((twin) => twin.id));
  }

  const clear = () => (selected = new Set());
  /** Those that are selected, as far as the filter shows them. */
  const picked = $derived(twins.filter((t) => selected.has(t.id)));

  async function updateAll() {
    const { updateDrifted } = await import('$lib/ui/inStep/updateDrifted.ts');
    await updateDrifted(updatable(twins));
  }
  async function putAside() {
    const twin = twins[at];
    await toggleAside(picked.length > 0 ? picked : twin ? [twin] : []);
    clear();
  }

  function open(twin: Twin) {
    if (twin.standing === 'drifted') drifted = twin;
    else if (twin.video) void goto(`/desk/${twin.video.id}`);
    else if (twin.post) void goto(`/booth/${twin.post.id}`);
  }

  function onkeydown(event: KeyboardEvent) {
    const isRow = (event.target as HTMLElement).getAttribute('role') === 'row';
    const twin = twins[at];
    if (!twin || !isRow) return;
    if ((event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'a') {
      selectAll();
      event.preventDefault();
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    switch (event.key) {
      case 'Enter':
        open(twin);
        break;
      case 'p':
        if (twin.video) void goto(`/desk/${twin.video.id}`);
        break;
      case 'v':
        if (twin.post) void goto(`/booth/${twin.post.id}`);
        break;
      case 'u':
        void goto(`/updates/${(twin.post ?? twin.video)?.id}`);
        break;
      case 'r':
        void goto(`/reach/${twin.id}`);
        break;
      case ' ':
        toggle(at, event.shiftKey);
        break;
      case 's':
        void putAside();
        break;
      default: {
        const to = rowForKey(event.key, at, twins.length);
        if (to === null) return;
        if (event.shiftKey) {
          // The row that it begins at is among them.
          if (!selected.has(twin.id)) toggle(at);
          toggle(to, true);
        }
        void move(to);
      }
    }
    event.preventDefault();
  }
</script>

<svelte:head><title>In step · Swift Twin</title></svelte:head>
<svelte:window bind:innerWidth={width} />

{#if places.value && isFirstVisit}
  {#await import('$lib/ui/FirstVisit.svelte') then { default: FirstVisit }}
    <FirstVisit
      places={places.value}
      twins={all ?? []}
      demo={data.demo ? demoSchema.parse(data.demo) : null}
    />
  {/await}
{:else}
  <div class="flex h-full flex-col">
    <div class="flex items-end gap-4 px-3 pt-2 pb-2">
      <div class="flex min-w-0 flex-1 flex-col gap-1.5">
        <div class="flex flex-wrap items-center gap-2">
          <h1 class="pr-2 text-lg font-semibold">In step</h1>
          <button class="plain btn btn-sm" onclick={() => readNow()}>
            <RefreshCw aria-hidden="true" />Refresh
          </button>
          {#if counts['no-post'] > 0 && counts['no-video'] > 0}
            <a class="plain btn btn-sm" href="/pairs"><Link2 aria-hidden="true" />Find pairs</a>
          {/if}
          <a class="bare btn btn-sm" href="/list-pages">List pages</a>
          {#if data.demo}
            <button class="bare btn btn-sm" onclick={() => emptyWithUndo()}>Start empty</button>
          {/if}
        </div>
        <StandingFilter {counts} bind:chosen />
        {#if chosen === 'drifted' && selected.size === 0 && updatable(twins).length > 1}
          <button class="plain btn self-start btn-sm" onclick={updateAll}
            >Update all drifted ({updatable(twins).length})</button
          >
        {/if}
      </div>
      <StepChart twins={all ?? []} />
    </div>
    {#if selected.size > 0}
      <SelectionBar
        twins={picked}
        hidden={selected.size - picked.length}
        shown={twins.length}
        onall={selectAll}
        onclear={clear}
      />
    {/if}
    <div
      class="hidden grid-cols-[1.75rem_1fr_6.5rem_1fr] gap-x-1 px-4 text-xs text-quiet md:grid"
      aria-hidden="true"
    >
      <span></span><span>Uploads</span><span></span><span>Posts</span>
    </div>
    {#if all && twins.length === 0 && tasks.running.length === 0}
      <EmptyState title={chosen ? noneLabels[chosen] : 'Nothing here yet'}>
        <p>
          {chosen
            ? 'Choose another filter above, or show all.'
            : 'Your places have no items yet, or could not be read. Places shows which.'}
        </p>
        {#snippet actions()}
          {#if chosen}
            <button class="plain btn btn-sm" onclick={() => (chosen = null)}>Show all</button>
          {:else}
            <button class="plain btn btn-sm" onclick={() => readNow()}>Refresh</button>
            <a class="plain btn btn-sm" href="/places">Go to Places</a>
          {/if}
        {/snippet}
      </EmptyState>
    {/if}
    <div
      bind:this={scroller}
      class="min-h-0 flex-1 overflow-y-auto px-2"
      class:invisible={twins.length === 0}
    >
      <!-- The rows take the focus, one at a time. -->
      <!-- svelte-ignore a11y_interactive_supports_focus -->
      <div
        role="grid"
        aria-label="Uploads and posts"
        aria-rowcount={twins.length}
        aria-multiselectable="true"
        aria-describedby="grid-keys"
        class="relative w-full"
        style:height="{rows.total}px"
        {onkeydown}
      >
        {#each rows.items as row (twins[row.index]?.id ?? row.key)}
          {@const twin = twins[row.index]}
          {#if twin}
            <div
              class="absolute top-0 left-0 w-full contain-strict"
              style:height="{row.size}px"
              style:transform="translateY({row.start}px)"
              role="presentation"
            >
              <TwinRow
                {twin}
                index={row.index}
                isCurrent={row.index === at}
                isSelected={selected.has(twin.id)}
                told={told.value ?? NONE_TOLD}
                onfocus={() => (current = row.index)}
                onselect={(isRange) => toggle(row.index, isRange)}
                ondrift={() => (drifted = twin)}
              />
            </div>
          {/if}
        {/each}
      </div>
    </div>
    <p id="grid-keys" class="hidden px-3 py-1 text-xs text-quiet md:block">
      <kbd>↑</kbd> <kbd>↓</kbd> move · <kbd>Enter</kbd> open · <kbd>P</kbd> make the post ·
      <kbd>V</kbd> make the video · <kbd>U</kbd> share it · <kbd>R</kbd> reach ·
      <kbd>Space</kbd>
      select, with <kbd>Shift</kbd> a range, <kbd>Ctrl A</kbd> all · <kbd>S</kbd> set aside
    </p>
  </div>
{/if}
{#if shownDrift && drifted}
  {@const twin = shownDrift}
  {#await import('$lib/ui/inStep/DriftDialog.svelte') then { default: DriftDialog }}
    <DriftDialog {twin} onclose={() => (drifted = null)} />
  {/await}
{/if}
