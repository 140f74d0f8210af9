<script lang="ts">
  import { isUnusable } from '$lib/core/archive/problem.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import type { ExaminedArchive } from '$lib/workers/archiveApi.ts';
  import { findingMessage, tableLabels } from './archiveMessages.ts';
  import DifferentRows from './DifferentRows.svelte';
  import type { ImportState } from './importState.svelte.ts';

  let { view, examined }: { view: ImportState; examined: ExaminedArchive } = $props();
  const { plan, findings } = $derived(examined);
  const changes = $derived(plan.tables.filter((t) => t.fresh + t.differing > 0));
  const same = $derived(plan.tables.reduce((sum, t) => sum + t.same, 0));
  const left = $derived(findings.filter(isUnusable).length);
  const isReplacing = $derived(!plan.isEmptyHere && view.how === 'replace');
  /** Damaged files that are told by name. */
  const MOST = 20;
</script>

<div class="flex flex-col gap-4 rounded-container border border-line bg-sheet p-4">
  {#if findings.length > 0}
    <div role="alert" class="flex flex-col gap-1">
      <p class="font-semibold">
        {left > 0
          ? `${plural(left, 'file', 'files')} cannot be used and will be left out. The rest is sound.`
          : 'Some rows cannot be read and will be left out. The rest is sound.'}
      </p>
      <ul class="max-h-40 list-disc overflow-y-auto pl-5">
        {#each findings.slice(0, MOST) as finding (finding.file)}<li>
            {findingMessage(finding)}
          </li>{/each}
        {#if findings.length > MOST}<li>and {findings.length - MOST} more</li>{/if}
      </ul>
    </div>
  {/if}
  {#if plan.unread > 0}
    <p role="alert">
      {plural(plan.unread, 'row', 'rows')} of the earlier version cannot be read and will be left out.
    </p>
  {/if}
  {#if changes.length === 0}
    <p>Everything in this archive is already here.</p>
  {:else}
    {#if !plan.isEmptyHere}
      <Choice
        legend="How to import"
        shown="above"
        isStacked
        options={[
          ['merge', 'Merge with what is here', 'Adds what is new. What differs is up to you.'],
          ['replace', 'Replace what is here', 'This browser becomes what the archive is.']
        ]}
        bind:value={view.how}
      />
    {/if}
    <div class="max-h-72 overflow-auto">
      <table class="w-full max-w-xl text-left">
        <caption class="sr-only">What is in the archive</caption>
        <thead class="sticky top-0 bg-sheet">
          <tr class="border-b border-line">
            <th class="py-1 pr-3 font-semibold" scope="col">In the archive</th>
            <th class="w-20 py-1 pr-3 text-right font-semibold" scope="col">New</th>
            {#if !plan.isEmptyHere}
              <th class="w-20 py-1 pr-3 text-right font-semibold" scope="col">Differs</th>
              <th class="w-20 py-1 text-right font-semibold" scope="col">Same</th>
            {/if}
          </tr>
        </thead>
        <tbody>
          {#each changes as { table, fresh, differing, same: alike } (table)}
            <tr>
              <th class="py-0.5 pr-3 font-normal" scope="row">{tableLabels[table]}</th>
              <td class="figures py-0.5 pr-3 text-right">{fresh}</td>
              {#if !plan.isEmptyHere}
                <td class="figures py-0.5 pr-3 text-right">{differing}</td>
                <td class="figures py-0.5 text-right">{alike}</td>
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if same > 0}<p class="text-quiet">{plural(same, 'row is', 'rows are')} the same here.</p>{/if}
    {#if plan.differing > 0 && !isReplacing}<DifferentRows {view} {plan} />{/if}
    {#if plan.running > 0}
      <label class="flex items-baseline gap-2">
        <input type="checkbox" class="self-center" bind:checked={view.holds} />
        <span
          >Pause {plural(
            plan.running,
            'lane or delivery that is under way',
            'lanes and deliveries that are under way'
          )}
          <span class="text-quiet">The browser they come from may still be at it.</span></span
        >
      </label>
    {/if}
    {#if plan.hasKeys}
      <label class="flex max-w-md flex-col gap-1 font-semibold">
        Passphrase of the keys
        <input
          class="field font-normal"
          type="password"
          autocomplete="off"
          bind:value={view.passphrase}
        />
        <span class="font-normal text-quiet">Leave it empty to import without keys.</span>
      </label>
      {#if view.isWrongPassphrase}
        <p role="alert"><strong>This is not the passphrase.</strong> Nothing was imported.</p>
      {/if}
    {:else}
      <p class="text-quiet">There are no keys in it. You add them again in Places.</p>
    {/if}
    <div class="flex flex-wrap items-center gap-2">
      <button class="strong btn btn-sm" disabled={view.isBusy} onclick={() => view.import()}>
        {view.isBusy ? 'Importing…' : isReplacing ? 'Replace and import' : 'Import'}
      </button>
      <button class="bare btn btn-sm" disabled={view.isBusy} onclick={() => view.clear()}
        >Cancel</button
      >
    </div>
  {/if}
</div>
