<script lang="ts">
  import { goto } from '$app/navigation';
  import { evenWeekdays } from '$lib/core/lanes/laneOfItems.ts';
  import type { LaneTarget } from '$lib/core/lanes/lane.ts';
  import { canPublish } from '$lib/core/model/place.ts';
  import type { Half } from '$lib/core/model/twin.ts';
  import { placesOfKind } from '$lib/data/places.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import CountField from '$lib/ui/CountField.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDate, plural } from '$lib/ui/messages.ts';
  import { makePostsOf } from '$lib/work/lanes/makeMany.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  let { videos, onclose }: { videos: readonly Half[]; onclose: (isDone: boolean) => void } =
    $props();
  let dialog = $state<HTMLDialogElement>();
  const blogs = live(() => async () => (await placesOfKind('blog')).filter(canPublish));
  let chosen = $state('');
  const blogId = $derived(chosen || (blogs.value?.[0]?.id ?? ''));
  let status = $state<LaneTarget['status']>('draft');
  let when = $state<'approved' | 'spread'>('approved');
  let aWeek = $state<number | null>(2);
  let hour = $state<number | null>(9);
  let isDone = false;

  $effect(() => dialog?.showModal());

  const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
  const days = $derived(evenWeekdays(aWeek ?? 1).map((day) => DAYS[day - 1]));

  async function make() {
    const count = plural(videos.length, 'video', 'videos');
    const name = `Posts of ${count}, ${formatDate(new Date().toISOString())}`;
    const spread = { aWeek: when === 'spread' ? (aWeek ?? 1) : null, hour: hour ?? 9 };
    const ids = videos.map((video) => video.id);
    isDone = true;
    dialog?.close();
    const { value: run, problem } = await attempt(() =>
      makePostsOf(ids, name, { placeId: blogId, status }, spread)
    );
    const left = run ? run.dropped + run.failed : 0;
    const said =
      !run || problem || run.problem
        ? 'It was stopped. Its lane goes on in half an hour, or when you run it.'
        : `${plural(run.made, 'post waits', 'posts wait')} for review.${
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
    Make posts of {plural(videos.length, 'video', 'videos')}
  </h2>
  <p class="text-sm text-quiet">
    Each is laid out like the last post of its channel and waits for your review. A lane of their
    own shows the progress; its run can be undone as a whole.
  </p>
  {#if blogs.value && blogs.value.length === 0}
    <p>No blog can be published to yet. <a class="underline" href="/places">Save a key</a>.</p>
  {:else}
    <div class="grid gap-3 sm:grid-cols-2">
      <label class="flex flex-col gap-1 font-semibold">
        Blog
        <select
          class="field font-normal"
          value={blogId}
          onchange={(event) => (chosen = event.currentTarget.value)}
        >
          {#each blogs.value ?? [] as blog (blog.id)}<option value={blog.id}>{blog.title}</option
            >{/each}
        </select>
      </label>
      <label class="flex flex-col gap-1 font-semibold">
        Visibility
        <select class="field font-normal" bind:value={status}>
          <option value="draft">Draft</option>
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
      <div class="grid grid-cols-2 gap-3">
        <CountField label="Posts a week" bind:value={aWeek} />
        <CountField label="From (hour)" bind:value={hour} />
      </div>
      <p class="text-sm text-quiet">{days.join(', ')}, your time zone.</p>
    {/if}
  {/if}
  <div class="flex gap-2">
    <button class="strong btn btn-sm" disabled={!blogId} onclick={make}>
      Make {plural(videos.length, 'post', 'posts')}
    </button>
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Cancel</button>
  </div>
</dialog>
