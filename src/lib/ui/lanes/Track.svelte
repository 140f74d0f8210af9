<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import { db } from '$lib/data/db.ts';
  import { allLayouts } from '$lib/data/layouts.ts';
  import {
    gateWords,
    makeWords,
    paceReasonWords,
    paceWords,
    siftWords,
    sourceWords,
    targetsWords
  } from '$lib/ui/laneWords.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { dateTimeWords } from '$lib/ui/words.ts';
  import { nextSlot } from '$lib/work/lanes/rehearse.ts';
  import type { Lanes } from './lanesState.svelte.ts';
  import GateForm from './stations/GateForm.svelte';
  import MakeForm from './stations/MakeForm.svelte';
  import PaceForm from './stations/PaceForm.svelte';
  import SiftForm from './stations/SiftForm.svelte';
  import SourceForm from './stations/SourceForm.svelte';
  import type { StationForm } from './stations/station.ts';
  import TargetsForm from './stations/TargetsForm.svelte';

  interface Props {
    lanes: Lanes;
    lane: Lane;
    names: ReadonlyMap<string, string>;
  }
  let { lanes, lane = $bindable(), names }: Props = $props();
  let open = $state('');
  const id = $props.id();

  const counts = live(() => {
    const laneId = lane.id;
    return async () => {
      const records = await db.records.where({ laneId }).toArray();
      const of = (...states: string[]) => records.filter((r) => states.includes(r.state)).length;
      return {
        seen: records.length,
        dropped: of('dropped', 'skipped'),
        made: of('in-review', 'planned', 'placing', 'placed', 'failed'),
        planned: of('planned', 'placing'),
        review: of('in-review'),
        placed: of('placed'),
        failed: of('failed')
      };
    };
  });
  const next = live(() => {
    const kept = $state.snapshot(lane) as Lane;
    return async () => {
      const waits = await db.outbox.where({ laneId: kept.id }).toArray();
      return waits.some((e) => e.state === 'planned') ? nextSlot(kept, 0) : null;
    };
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
        ...{ name: 'Source', words: sourceWords(lane, names), Form: SourceForm },
        count: n ? `${n.seen} looked at` : ''
      },
      {
        ...{ name: 'Sift', words: siftWords(lane), Form: SiftForm },
        count: n ? `${n.dropped} left out` : ''
      },
      {
        name: 'Make',
        words: makeWords(lane, layouts.value ?? new Map()),
        Form: MakeForm,
        count: n ? `${n.made} made` : ''
      },
      {
        ...{ name: 'Pace', words: paceWords(lane), Form: PaceForm },
        count: n ? `${n.planned} planned` : ''
      },
      {
        ...{ name: 'Gate', words: gateWords(lane), Form: GateForm },
        count: n ? `${n.review} to review` : ''
      },
      {
        ...{ name: 'Places', words: targetsWords(lane, names), Form: TargetsForm },
        count: n ? `${n.placed} placed${n.failed > 0 ? `, ${n.failed} failed` : ''}` : ''
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
        <span class="times mt-auto text-quiet">{count}</span>
      </button>
    </li>
  {/each}
</ol>
{#if next.value}
  <p class="text-sm text-quiet">
    Next goes out {dateTimeWords(new Date(next.value.at).toISOString())}{next.value.waitsFor
      ? `, ${paceReasonWords[next.value.waitsFor]}`
      : ''}{lane.isOn ? '.' : ', once the lane is on.'}
  </p>
{/if}
<div id="{id}-form" class={chosen ? 'rounded-base border border-line p-3 text-sm' : 'hidden'}>
  {#if chosen}
    {@const { Form, name } = chosen}
    <h2 class="pb-2 font-semibold">{name}</h2>
    <Form bind:lane {names} onchange={() => lanes.save(lane)} />
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
