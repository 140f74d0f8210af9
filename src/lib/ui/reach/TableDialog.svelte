<script lang="ts">
  import type { Problem } from '$lib/core/model/place.ts';
  import {
    guessColumns,
    readFiguresTable,
    type ColumnChoice,
    type FiguresTable
  } from '$lib/core/reach/csvFigures.ts';
  import { COUNTERS, type Counter } from '$lib/core/reach/figures.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { importTable } from '$lib/work/reach/figuresTable.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { counterLabels } from './reachMessages.ts';

  let { onclose }: { onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let name = $state('');
  let table = $state.raw<FiguresTable | null>(null);
  let choice = $state<ColumnChoice | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let said = $state('');
  const NONE = -1;
  /** Rows that are shown to choose by. */
  const SHOWN = 3;
  const MOST_BYTES = 50_000_000;
  const counters = COUNTERS.filter((counter) => counter !== 'visits');
  const isReady = $derived(choice !== null && Object.keys(choice.counters).length > 0);

  $effect(() => dialog?.showModal());

  async function choose({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
    const file = currentTarget.files?.[0];
    if (!file) return;
    name = file.name;
    table = choice = null;
    const text = file.size > MOST_BYTES ? '' : await file.text();
    currentTarget.value = '';
    const read = readFiguresTable(text);
    if (file.size > MOST_BYTES) said = `“${name}” is larger than 50 MB, so it was not read.`;
    else if (read.problem?.kind === 'too-many-rows')
      said = `“${name}” has more than ${read.problem.most.toLocaleString('en')} rows. Export a shorter time.`;
    else if (!read.table)
      said = `“${name}” has no rows. Choose a CSV file with a heading for each column.`;
    else {
      said = '';
      table = read.table;
      choice = guessColumns(read.table);
    }
  }

  function setCounter(counter: Counter, column: number) {
    if (!choice) return;
    const next = { ...choice.counters };
    if (column === NONE) delete next[counter];
    else next[counter] = column;
    choice.counters = next;
  }

  async function add() {
    if (!table || !choice) return;
    const [chosenTable, chosen] = [table, $state.snapshot(choice)];
    const done = await attempt(() => importTable(chosenTable, chosen, name));
    problem = done.problem;
    if (!done.value) return;
    const { rows, items, unknown, unreadable, known, undo } = done.value;
    if (rows === 0) {
      const first = unknown[0] ? ` The first is “${unknown[0].slice(0, 80)}”.` : '';
      said = `No row names a video or post that is here.${first} Check which column has the addresses or titles.`;
      return;
    }
    const notes = [
      unknown.length > 0 && `${plural(unknown.length, 'name is', 'names are')} not here`,
      unreadable > 0 && `${plural(unreadable, 'row', 'rows')} could not be read`,
      known > 0 && `${plural(known, 'figure was', 'figures were')} known already`
    ].filter(Boolean);
    const left = notes.length > 0 ? ` Left out: ${notes.join('; ')}.` : '';
    deck.say(`${plural(rows, 'row', 'rows')} added to ${plural(items, 'item', 'items')}.${left}`, {
      label: 'Undo',
      run: undo
    });
    dialog?.close();
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  aria-labelledby="table-title"
  class="m-auto flex max-h-[90vh] w-[44rem] max-w-[calc(100vw-1rem)] flex-col gap-3 overflow-y-auto rounded-container border border-edge bg-sheet p-4 text-sm text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="table-title" class="text-lg font-semibold">Import figures from a table</h2>
  <p class="text-quiet">
    A CSV file from any service: one column names the video or post by its address or title, others
    have the figures.
  </p>
  {#if table && choice}
    {@const { columns, rows } = table}
    <div class="overflow-x-auto" tabindex="-1">
      <table class="w-full text-xs">
        <caption class="sr-only">The first rows of “{name}”</caption>
        <thead>
          <tr
            >{#each columns as column, i (i)}<th
                scope="col"
                class="border border-line px-1 text-left">{column}</th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each rows.slice(0, SHOWN) as row, r (r)}
            <tr
              >{#each columns as column, i (`${i} ${column}`)}<td
                  class="max-w-40 truncate border border-line px-1">{row[i] ?? ''}</td
                >{/each}</tr
            >
          {/each}
        </tbody>
      </table>
    </div>
    <div class="grid gap-3 sm:grid-cols-2">
      <label class="flex flex-col gap-1"
        >Video or post
        <select class="field" bind:value={choice.item}>
          {#each columns as column, i (i)}<option value={i}>{column}</option>{/each}
        </select></label
      >
      <label class="flex flex-col gap-1"
        >Day
        <select class="field" bind:value={choice.date}>
          <option value={null}>None: these are figures of today</option>
          {#each columns as column, i (i)}<option value={i}>{column}</option>{/each}
        </select></label
      >
      {#each counters as counter (counter)}
        <label class="flex flex-col gap-1"
          >{counterLabels[counter]}
          <select
            class="field"
            value={choice.counters[counter] ?? NONE}
            onchange={({ currentTarget }) => setCounter(counter, Number(currentTarget.value))}
          >
            <option value={NONE}>Not in this table</option>
            {#each columns as column, i (i)}<option value={i}>{column}</option>{/each}
          </select></label
        >
      {/each}
    </div>
    {#if choice.date !== null}
      <Choice
        legend="The figures are"
        shown="beside"
        options={[
          [true, 'what came on each day'],
          [false, 'totals by that day']
        ]}
        bind:value={choice.isPerDay}
      />
    {/if}
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  {#if said}<p role="status">{said}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <label
      class="btn cursor-pointer btn-sm focus-within:outline-2 focus-within:outline-offset-2 {table
        ? 'plain'
        : 'strong'}"
      >{table ? 'Choose another file…' : 'Choose a CSV file…'}
      <input
        class="sr-only"
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        onchange={choose}
      /></label
    >
    {#if table}
      <button class="strong btn btn-sm" onclick={add} disabled={!isReady}
        >Add {plural(table.rows.length, 'row', 'rows')}</button
      >
    {/if}
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
