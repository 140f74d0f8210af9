<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { recordsOf } from '$lib/data/lanes.ts';
  import { allLayouts } from '$lib/data/layouts.ts';
  import {
    approvalMessage,
    makeMessage,
    paceReasonLabels,
    paceMessage,
    filterMessage,
    sourceMessage,
    targetsMessage
  } from '$lib/ui/laneMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDateTime } from '$lib/ui/messages.ts';
  import { plannedOf } from '$lib/work/lanes/planned.ts';
  import ApprovalForm from './stations/ApprovalForm.svelte';
  import MakeForm from './stations/MakeForm.svelte';
  import PaceForm from './stations/PaceForm.svelte';
  import FilterForm from './stations/FilterForm.svelte';
  import SourceForm from './stations/SourceForm.svelte';
  import type { StationForm } from './stations/station.ts';
  import TargetsForm from './stations/TargetsForm.svelte';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
  }
  let { lane = $bindable(), names }: Props = $props();
  let open = $state('');
  const id = $props.id();

  const counts = live(() => {
    const laneId = lane.id;
    return async () => {
      const records = await recordsOf(laneId);
      const of = (...states: string[]) => records.filter((r) => states.includes(r.state)).length;
      return {
        seen: records.length,
        dropped: of('dropped', 'skipped'),
        made: of('in-review', 'planned', 'publishing', 'published', 'failed'),
        planned: of('planned', 'publishing'),
        review: of('in-review'),
        placed: of('published'),
        failed: of('failed')
      };
    };
  });
  const next = live(() => {
    const kept = $state.snapshot(lane) as Lane;
    return async () => (await plannedOf(kept, Date.now()))[0] ?? null;
  });

  const layouts = live(() => async () => new Map((await allLayouts()).map((l) => [l.id, l.name])));

  interface Station {
    name: string;
    words: string;
    count: string;
    Form: StationForm;
  }
  const stations: Station[] = $derived.by(() => {
    const n = counts.value;
    return [
      {
        name: 'Source',
        words: sourceMessage(lane, names),
        Form: SourceForm,
        count: n ? `${n.seen} found` : ''
      },
      {
        name: 'Filter',
        words: filterMessage(lane),
        Form: FilterForm,
        count: n ? `${n.dropped} left out` : ''
      },
      {
        name: 'Make',
        words: makeMessage(lane, layouts.value ?? new Map()),
        Form: MakeForm,
        count: n ? `${n.made} made` : ''
      },
      {
        name: 'Pace',
        words: paceMessage(lane),
        Form: PaceForm,
        count: n ? `${n.planned} planned` : ''
      },
      {
        name: 'Approval',
        words: approvalMessage(lane),
        Form: ApprovalForm,
        count: n ? `${n.review} to review` : ''
      },
      {
        name: 'Places',
        words: targetsMessage(lane, names),
        Form: TargetsForm,
        count: n ? `${n.placed} published${n.failed > 0 ? `, ${n.failed} failed` : ''}` : ''
      }
    ];
  });
  const chosen = $derived(stations.find((s) => s.name === open));
</script>

<ol class="track grid gap-2" aria-label="Stations of {lane.name}">
  {#each stations as { name, words, count } (name)}
    <li class="station relative min-w-0">
      <button
        class="flex h-full w-full flex-col items-start gap-0.5 rounded-base border p-2 text-left text-sm {open ===
        name
          ? 'border-ink bg-marked'
          : 'border-edge bg-canvas hover:border-ink'}"
        aria-expanded={open === name}
        aria-controls="{id}-form"
        onclick={() => (open = open === name ? '' : name)}
      >
        <span class="font-semibold">{name}</span>
        <span class="line-clamp-6 w-full break-words" title={words}>{words}</span>
        <span class="figures mt-auto text-quiet">{count}</span>
      </button>
    </li>
  {/each}
</ol>
{#if next.value}
  <p class="text-sm text-quiet">
    Next one goes out {formatDateTime(new Date(next.value.at).toISOString())}{next.value.waitsFor
      ? `, ${paceReasonLabels[next.value.waitsFor]}`
      : ''}{lane.isOn ? '.' : ', once the lane is on.'}
  </p>
{/if}
<div id="{id}-form" class={chosen ? 'rounded-base border border-line p-3 text-sm' : 'hidden'}>
  {#if chosen}
    {@const { Form, name } = chosen}
    <h2 class="pb-2 font-semibold">{name}</h2>
    <Form bind:lane {names} />
  {/if}
</div>

<style>
  .track {
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 10rem), 1fr));
  }
  /* The track itself: a thread from each station to the next. */
  .station:not(:last-child)::after {
    content: '';
    position: absolute;
    top: 50%;
    right: -0.5rem;
    width: 0.5rem;
    border-top: 2px solid var(--edge);
  }
</style>
