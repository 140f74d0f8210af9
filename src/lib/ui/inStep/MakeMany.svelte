<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { evenWeekdays, TWO_A_WEEK } from '$lib/core/lanes/laneOfItems.ts';
  import type { LaneTarget } from '$lib/core/lanes/lane.ts';
  import { canPublish } from '$lib/core/model/place.ts';
  import type { Half } from '$lib/core/model/twin.ts';
  import { placesOfKind } from '$lib/data/places.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDate, plural } from '$lib/ui/messages.ts';
  import { makeMany } from '$lib/work/lanes/makeMany.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { pairsWorker } from '$lib/workers/pairs.ts';
  import SpreadFields from './SpreadFields.svelte';

  interface Props {
    /** What something is made of. */
    halves: readonly Half[];
    /** What is made: posts of videos, or narrated videos of posts. */
    what: 'post' | 'video';
    onclose: (isDone: boolean) => void;
  }
  let { halves, what, onclose }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  const places = live(() => {
    const kind = what === 'post' ? ('blog' as const) : ('channel' as const);
    return async () => (await placesOfKind(kind)).filter(canPublish);
  });
  let chosen = $state('');
  const placeId = $derived(chosen || (places.value?.[0]?.id ?? ''));
  /** Which of them have their other half already, untied; null while it is looked for. */
  let paired = $state.raw<ReadonlyMap<string, unknown> | null>(null);
  let leavesOut = $state(true);
  const chosenHalves = $derived(
    leavesOut && paired ? halves.filter((half) => !paired?.has(half.id)) : halves
  );
  const made = $derived(
    what === 'post'
      ? plural(chosenHalves.length, 'post', 'posts')
      : plural(chosenHalves.length, 'video', 'videos')
  );
  const sourceOf = (count: number) =>
    what === 'post' ? plural(count, 'video', 'videos') : plural(count, 'post', 'posts');
  // svelte-ignore state_referenced_locally
  let status = $state<LaneTarget['status']>(what === 'post' ? 'draft' : 'private');
  let when = $state<'approved' | 'spread'>('approved');
  let spread = $state({ ...TWO_A_WEEK });
  let isDone = false;

  $effect(() => dialog?.showModal());
  onMount(async () => {
    const { value } = await attempt(() =>
      pairsWorker().surelyPaired(halves.map((half) => half.id))
    );
    paired = value ?? new Map();
  });

  const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
  const days = $derived(evenWeekdays(spread.aWeek ?? 1).map((day) => DAYS[day - 1]));

  async function make() {
    const name = `${what === 'post' ? 'Posts' : 'Videos'} of ${sourceOf(chosenHalves.length)}, ${formatDate(new Date().toISOString())}`;
    const wanted = when === 'spread' ? $state.snapshot(spread) : { ...TWO_A_WEEK, aWeek: null };
    const ids = chosenHalves.map((half) => half.id);
    isDone = true;
    dialog?.close();
    const { value: run, problem } = await attempt(() =>
      makeMany(ids, name, { placeId, status }, wanted)
    );
    const left = run ? run.dropped + run.failed : 0;
    const said =
      !run || problem || run.problem
        ? 'It was stopped. Its lane goes on in half an hour, or when you run it.'
        : `${plural(run.made, `${what} waits`, `${what}s wait`)} for review.${
            left > 0
              ? ` ${plural(left, 'item was', 'items were')} left out; the lane says why.`
              : ''
          }`;
    deck.say(said, { label: 'Review', run: () => goto('/review') });
  }
</script>

<dialog
  bind:this={dialog}
  onclose={() => onclose(isDone)}
  aria-labelledby="make-title"
  class="m-auto flex w-[32rem] max-w-[calc(100vw-1rem)] flex-col gap-4 rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="make-title" class="text-lg font-semibold">
    Make {what}s of {sourceOf(halves.length)}
  </h2>
  <p class="text-sm text-quiet">
    {what === 'post'
      ? 'Each is laid out like the last post of its channel and waits for your review.'
      : 'Each is narrated like the last video that was made in the booth, and waits for your review. That takes minutes for each.'}
    A lane of their own shows the progress; its run can be undone as a whole.
  </p>
  {#if places.value && places.value.length === 0}
    <p>
      No {what === 'post' ? 'blog' : 'channel'} can be published to yet.
      <a class="underline" href="/places">Save a key</a>.
    </p>
  {:else}
    <div class="grid gap-3 sm:grid-cols-2">
      <label class="flex flex-col gap-1 font-semibold">
        {what === 'post' ? 'Blog' : 'Channel'}
        <select
          class="field font-normal"
          value={placeId}
          onchange={(event) => (chosen = event.currentTarget.value)}
        >
          {#each places.value ?? [] as place (place.id)}<option value={place.id}
              >{place.title}</option
            >{/each}
        </select>
      </label>
      <label class="flex flex-col gap-1 font-semibold">
        Visibility
        <select class="field font-normal" bind:value={status}>
          {#if what === 'post'}<option value="draft">Draft</option>{/if}
          <option value="private">Private</option>
          <option value="public">Public</option>
        </select>
      </label>
    </div>
    <Choice
      legend="When they go out"
      shown="above"
      isStacked
      options={[
        ['approved', 'As soon as I approve each'],
        ['spread', 'Spread evenly after I approve them']
      ]}
      bind:value={when}
    />
    {#if when === 'spread'}
      <SpreadFields what={what === 'post' ? 'Posts' : 'Videos'} bind:spread />
      <p class="text-sm text-quiet">{days.join(', ')}, your time zone.</p>
    {/if}
  {/if}
  {#if !paired}
    <p class="text-sm text-quiet" role="status">
      Looking whether some have a {what} already…
    </p>
  {:else if paired.size > 0}
    <p class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
      <label class="flex items-baseline gap-1.5">
        <input type="checkbox" bind:checked={leavesOut} />
        Leave out {paired.size} that seem{paired.size === 1 ? 's' : ''} to have a {what} already
      </label>
      <a class="underline" href="/pairs">Find pairs</a>
    </p>
  {/if}
  <div class="flex gap-2">
    <button
      class="strong btn btn-sm"
      disabled={!placeId || !paired || chosenHalves.length === 0}
      onclick={make}
    >
      Make {made}
    </button>
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Cancel</button>
  </div>
</dialog>
