<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { LaneRecord } from '$lib/core/lanes/record.ts';
  import { readSheet } from '$lib/core/lanes/sheet.ts';
  import { dropMessage, recordLabels } from '$lib/ui/laneMessages.ts';
  import { plural, problemMessage } from '$lib/ui/messages.ts';
  import { exportSheet } from '$lib/work/lanes/exportSheet.ts';

  interface Props {
    lane: Lane;
  }
  let { lane = $bindable() }: Props = $props();
  let pasted = $state('');
  let message = $state('');
  const { sheet } = $derived(lane.source);

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
  }
  async function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (file) takeList(await file.text());
  }
  const telling = {
    state: (state: keyof typeof recordLabels) => recordLabels[state],
    reason: (record: LaneRecord) =>
      record.reason
        ? dropMessage(record.reason)
        : record.problem
          ? problemMessage(record.problem).what
          : ''
  };
</script>

<fieldset class="flex flex-col gap-2">
  <legend class="font-semibold">Only what a list names</legend>
  {#if sheet}
    <p class="flex flex-wrap items-center gap-3">
      A list of {plural(sheet.rows.length, 'row', 'rows')}, by its column “{sheet.columns[
        sheet.key
      ]}”.
      <button
        class="plain btn btn-sm"
        onclick={() => exportSheet($state.snapshot(lane) as Lane, telling)}
        >Export with results (CSV)</button
      >
      <button
        class="bare btn btn-sm"
        onclick={() => {
          lane.source.sheet = null;
        }}>Remove the list</button
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
