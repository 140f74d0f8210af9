<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { paceReasonLabels } from '$lib/ui/laneMessages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { plural, formatDateTime } from '$lib/ui/messages.ts';
  import { keepRehearsed, rehearse, type Rehearsed } from '$lib/work/lanes/rehearse.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Foreseen } from '$lib/workers/lanesApi.ts';
  import { foreseen } from './foreseen.svelte.ts';
  import DropNote from './DropNote.svelte';
  import FindingList from './FindingList.svelte';
  import PayloadPreview from './PayloadPreview.svelte';
  import ForeseenWords from './ForeseenWords.svelte';

  let { lane, names }: { lane: Lane; names: ReadonlyMap<string, string> } = $props();
  let itemId = $state('');
  let rehearsed = $state.raw<Rehearsed | null>(null);
  let problem = $state.raw<Problem | null>(null);

  const foreseeing = foreseen(() => lane);
  const found = $derived(foreseeing.value);
  $effect(() => {
    const isKnown = [...(found?.passing ?? []), ...(found?.dropped ?? [])].some(
      (i) => i.id === itemId
    );
    // The latest real item, unless another was picked.
    if (found && !isKnown) itemId = newest(found);
  });

  const newest = ({ passing, dropped }: Foreseen): string =>
    passing.toSorted((a, b) => (b.published ?? '').localeCompare(a.published ?? ''))[0]?.id ??
    dropped[0]?.id ??
    '';

  async function go() {
    rehearsed = null;
    const done = await attempt(() => rehearse($state.snapshot(lane) as Lane, itemId));
    rehearsed = done.value;
    problem = done.problem;
  }
  async function keep() {
    if (!rehearsed) return;
    await keepRehearsed($state.snapshot(lane) as Lane, rehearsed);
    rehearsed = null;
    deck.say('It is scheduled as it is, at the pace of the lane.');
  }
  const reason = $derived(found?.dropped.find((d) => d.id === itemId)?.reason);
</script>

<section
  aria-label="Rehearsal of {lane.name}"
  class="flex flex-col gap-3 rounded-base border border-edge p-3 text-sm"
>
  {#if found}
    <ForeseenWords {lane} foreseen={found} />
    <details>
      <summary
        >{plural(found.seen - found.passes, 'item is', 'items are')} left out, and why</summary
      >
      <ul class="max-h-60 list-disc overflow-y-auto pl-5">
        {#each found.dropped as { id, title, reason: why } (id)}
          <li>{title}: <DropNote reason={why} /></li>
        {/each}
      </ul>
    </details>
    <div class="flex flex-wrap items-end gap-2">
      <label class="flex min-w-0 flex-1 basis-64 flex-col gap-1">
        <span class="font-semibold">Rehearse with</span>
        <select class="field" bind:value={itemId}>
          {#if found.passing.length > 0}
            <optgroup label="Passes">
              {#each found.passing as { id, title } (id)}<option value={id}>{title}</option>{/each}
            </optgroup>
          {/if}
          <optgroup label="Left out">
            {#each found.dropped as { id, title } (id)}<option value={id}>{title}</option>{/each}
          </optgroup>
        </select>
      </label>
      <button class="strong btn btn-sm" disabled={!itemId} onclick={go}>Show the result</button>
    </div>
    {#if reason}<p>The lane would leave it out: <DropNote {reason} /></p>{/if}
  {:else}
    <p role="status">Reading the sources…</p>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  {#if rehearsed}
    <p>
      {rehearsed.slot
        ? `It would be published ${formatDateTime(new Date(rehearsed.slot.at).toISOString())}${rehearsed.slot.waitsFor ? `, ${paceReasonLabels[rehearsed.slot.waitsFor]}` : ''}.`
        : 'At this pace it would never be published.'}
      {lane.approval.mode === 'always' ? '' : 'Before that it waits for your approval.'}
      Nothing was published.
    </p>
    {#each rehearsed.made as { target, made: { payload, findings }, isKnown } (target.placeId)}
      <article aria-label="For {names.get(target.placeId)}" class="flex flex-col gap-1">
        <h2 class="font-semibold">
          {names.get(target.placeId)}{lane.make.kind === 'update' ? '' : `, ${target.status}`}
        </h2>
        <p class="text-quiet">
          {isKnown ? 'It exists already, so it would be left out.' : ''}
        </p>
        {#if findings.length === 0}<p class="text-quiet">Nothing to check.</p>{/if}
        <FindingList {findings} />
        <PayloadPreview
          {payload}
          itemId={rehearsed.itemId}
          placeId={target.placeId}
          label="The post as it would be"
        />
      </article>
    {/each}
    <button
      class="plain btn self-start btn-sm"
      disabled={rehearsed.made.every((m) => m.isKnown)}
      onclick={keep}>Publish it as it is</button
    >
  {/if}
</section>
