<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import { db } from '$lib/data/db.ts';
  import { readSheet } from '$lib/core/lanes/sheet.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { dropWords, recordWords } from '$lib/ui/laneWords.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { countWords, problemWords } from '$lib/ui/words.ts';
  import { takeSheetBack } from '$lib/work/lanes/sheetBack.ts';

  interface Props {
    lane: Lane;
    names: ReadonlyMap<string, string>;
    onchange: () => void;
  }
  let { lane = $bindable(), onchange }: Props = $props();
  const places = live(() => () => db.places.toArray());
  const { search } = $derived(lane.source);
  let pasted = $state('');
  let message = $state('');
  function takeList(text: string) {
    const { sheet: read, problem } = readSheet(text);
    message = !problem
      ? ''
      : problem.kind === 'empty'
        ? 'There is nothing in this list. Nothing was changed.'
        : `A list has at most ${problem.most} rows. Nothing was changed.`;
    if (!read) return;
    lane.source.sheet = read;
    pasted = '';
    onchange();
  }
  async function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (file) takeList(await file.text());
  }
  const telling = {
    state: (state: keyof typeof recordWords) => recordWords[state],
    reason: (record: LaneRecord) =>
      record.reason
        ? dropWords(record.reason)
        : record.problem
          ? problemWords(record.problem).what
          : ''
  };
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
  <fieldset class="flex flex-col gap-2 md:col-span-2">
    <legend class="font-semibold">Only what a list names</legend>
    {#if lane.source.sheet}
      <p class="flex flex-wrap items-center gap-3">
        A list of {countWords(lane.source.sheet.rows.length, 'row', 'rows')}, by its column “{lane
          .source.sheet.columns[lane.source.sheet.key]}”.
        <button
          class="plain btn btn-sm"
          onclick={() => takeSheetBack($state.snapshot(lane) as Lane, telling)}
          >Take it back with what became of each (CSV)</button
        >
        <button
          class="bare btn btn-sm"
          onclick={() => {
            lane.source.sheet = null;
            onchange();
          }}>Without the list</button
        >
      </p>
    {:else}
      <textarea
        class="field"
        rows="2"
        aria-label="Addresses or topics, one a line"
        placeholder="Addresses or topics, one a line"
        bind:value={pasted}></textarea>
      <p class="flex flex-wrap gap-2">
        <button class="plain btn btn-sm" disabled={!pasted.trim()} onclick={() => takeList(pasted)}
          >Use this list</button
        >
        <label class="plain btn cursor-pointer btn-sm">
          From a sheet (CSV)
          <input class="sr-only" type="file" accept=".csv,text/csv,text/plain" onchange={bring} />
        </label>
      </p>
    {/if}
    {#if message}<p role="alert">{message}</p>{/if}
  </fieldset>
</div>
