<script lang="ts">
  import type { ArchivePlan } from '$lib/data/archive/plan.ts';
  import { rowName } from '$lib/data/archive/rows.ts';
  import { formatDateTime, plural } from '$lib/ui/messages.ts';
  import { tableLabels } from './archiveMessages.ts';
  import type { ImportState } from './importState.svelte.ts';

  let { view, plan }: { view: ImportState; plan: ArchivePlan } = $props();
  /** Rows that are drawn at first, and more each time. */
  const MORE = 50;
  let most = $state(MORE);
  const taken = $derived(plan.differences.filter((row) => view.isTaken(row)).length);
  const told = (at: number | null) =>
    at === null ? '–' : formatDateTime(new Date(at).toISOString());
</script>

<div class="flex flex-col gap-2">
  <div class="flex flex-wrap items-center gap-2">
    <h3 class="font-semibold">
      {plural(plan.differing, 'row differs', 'rows differ')}
    </h3>
    <p class="text-quiet" role="status">{taken} from the archive</p>
    <span class="ml-auto flex flex-wrap gap-1">
      <button class="bare btn btn-sm" onclick={() => view.takeNewer()}>The newer of each</button>
      <button class="bare btn btn-sm" onclick={() => view.take(plan.differences, false)}
        >All as here</button
      >
      <button class="bare btn btn-sm" onclick={() => view.take(plan.differences, true)}
        >All from the archive</button
      >
    </span>
  </div>
  <div class="max-h-80 overflow-auto">
    <table class="w-full text-left">
      <thead class="sticky top-0 bg-sheet">
        <tr class="border-b border-line">
          <th class="py-1 pr-3 font-semibold" scope="col">Take the archive’s</th>
          <th class="py-1 pr-3 font-semibold" scope="col">What</th>
          <th class="py-1 pr-3 font-semibold" scope="col">Changed here</th>
          <th class="py-1 font-semibold" scope="col">In the archive</th>
        </tr>
      </thead>
      <tbody>
        {#each plan.differences.slice(0, most) as row (rowName(row.table, row.key))}
          <tr>
            <td class="py-0.5 pr-3">
              <label class="flex items-baseline gap-2">
                <input
                  type="checkbox"
                  class="self-center"
                  checked={view.isTaken(row)}
                  onchange={(event) => view.take([row], event.currentTarget.checked)}
                />
                <span class="line-clamp-2 break-words">{row.title}</span>
              </label>
            </td>
            <td class="py-0.5 pr-3 text-quiet">{tableLabels[row.table]}</td>
            <td class="py-0.5 pr-3 whitespace-nowrap">{told(row.here)}</td>
            <td class="py-0.5 whitespace-nowrap">{told(row.there)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if plan.differences.length > most}
    <button class="plain btn self-start btn-sm" onclick={() => (most += MORE)}>Show more</button>
  {/if}
  {#if plan.differing > plan.differences.length}
    <p class="text-quiet">
      The other {plan.differing - plan.differences.length} go by their time: the newer of each.
    </p>
  {/if}
</div>
