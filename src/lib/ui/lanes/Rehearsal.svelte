<script lang="ts">
  import type { Lane } from '$lib/core/lanes/lane.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { dropWords, paceReasonWords } from '$lib/ui/laneWords.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { countWords, dateTimeWords } from '$lib/ui/words.ts';
  import { keepRehearsed, rehearse, type Rehearsed } from '$lib/work/lanes/rehearse.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Foreseen } from '$lib/workers/lanes.worker.ts';
  import { foreseen } from './foreseen.svelte.ts';
  import Piece from './Piece.svelte';
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
    deck.say('It is kept as it is and goes out at the pace of the lane.');
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
        >{countWords(found.seen - found.passes, 'item is', 'items are')} left out, and why</summary
      >
      <ul class="max-h-60 list-disc overflow-y-auto pl-5">
        {#each found.dropped as { id, title, reason: why } (id)}
          <li>{title}: <span class="text-quiet">{dropWords(why)}</span></li>
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
      <button class="strong btn btn-sm" disabled={!itemId} onclick={go}
        >Show what would be made</button
      >
    </div>
    {#if reason}<p>The lane would leave it out: {dropWords(reason)}</p>{/if}
  {:else}
    <p role="status">Looking at the sources…</p>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  {#if rehearsed}
    <p>
      {rehearsed.slot
        ? `It would go out ${dateTimeWords(new Date(rehearsed.slot.at).toISOString())}${rehearsed.slot.waitsFor ? `, ${paceReasonWords[rehearsed.slot.waitsFor]}` : ''}.`
        : 'By this pace it would never go out.'}
      {lane.gate.opens === 'always' ? '' : 'Before that it waits for your review.'}
      Nothing was placed.
    </p>
    {#each rehearsed.made as { target, made: { payload, complaints }, isThereAlready } (target.placeId)}
      <article aria-label="For {names.get(target.placeId)}" class="flex flex-col gap-1">
        <h2 class="font-semibold">
          {names.get(target.placeId)}{lane.make.kind === 'update' ? '' : `, ${target.status}`}
        </h2>
        <p class="text-quiet">
          {isThereAlready ? 'It was made already; it would be left out here.' : ''}
          {complaints > 0
            ? `${countWords(complaints, 'check complains', 'checks complain')}.`
            : 'No check complains.'}
        </p>
        <Piece
          {payload}
          itemId={rehearsed.itemId}
          placeId={target.placeId}
          label="The post as it would be"
        />
      </article>
    {/each}
    <button
      class="plain btn self-start btn-sm"
      disabled={rehearsed.made.every((m) => m.isThereAlready)}
      onclick={keep}>Place it as it is</button
    >
  {/if}
</section>
