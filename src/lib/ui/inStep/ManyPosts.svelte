<script lang="ts">
  import type { Twin } from '$lib/core/model/twin.ts';
  import { TWO_A_WEEK } from '$lib/core/lanes/laneOfItems.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { formatDateTime, plural, problemMessage } from '$lib/ui/messages.ts';
  import {
    approveMany,
    changePosts,
    datesOf,
    drafts,
    inReview,
    type PostsAction
  } from '$lib/work/manyPosts.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import SpreadFields from './SpreadFields.svelte';

  let { twins, onclose }: { twins: readonly Twin[]; onclose: (isDone: boolean) => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  const waiting = $derived(inReview(twins));
  const hidden = $derived(drafts(twins));
  const posts = $derived(twins.filter(({ post }) => post));
  const options = $derived(
    (
      [
        ['approve', `Approve ${plural(waiting.length, 'post', 'posts')} in review`, waiting],
        ['publish', `Publish ${plural(hidden.length, 'draft', 'drafts')} now`, hidden],
        ['schedule', `Schedule ${plural(hidden.length, 'draft', 'drafts')}`, hidden],
        ['tag', `Change tags of ${plural(posts.length, 'post', 'posts')}`, posts]
      ] as const
    ).filter(([, , some]) => some.length > 0)
  );
  let wished = $state<'approve' | 'publish' | 'schedule' | 'tag' | null>(null);
  const what = $derived(wished ?? options[0]?.[0] ?? 'tag');
  let add = $state<string[]>([]);
  let remove = $state<string[]>([]);
  let spread = $state({ ...TWO_A_WEEK });
  const dates = $derived(what === 'schedule' ? datesOf(spread, hidden.length, Date.now()) : []);
  const label = $derived(options.find(([value]) => value === what)?.[1] ?? '');
  const isReady = $derived(
    what === 'tag' ? add.length + remove.length > 0 : what !== 'schedule' || dates.length > 0
  );
  let isDone = false;
  $effect(() => dialog?.showModal());

  const at = (moment: number | undefined) =>
    moment === undefined ? '' : formatDateTime(new Date(moment).toISOString());

  async function run() {
    isDone = true;
    const some = [...twins];
    const action = actionOf();
    dialog?.close();
    if (!action) {
      const approved = await approveMany(some);
      const blocked = waiting.length - approved;
      return deck.say(
        `${plural(approved, 'post', 'posts')} approved; the pace of the lane decides when.${
          blocked > 0 ? ` ${plural(blocked, 'post is', 'posts are')} blocked by a check.` : ''
        }`
      );
    }
    const { value: done, problem } = await attempt(() =>
      runTask(label, (signal, report) => changePosts(some, action, signal, report))
    );
    if (problem) {
      const { what: why, todo } = problemMessage(problem);
      return deck.say(`${why} ${todo}`);
    }
    const said = [`${plural(done.done, 'post', 'posts')} changed.`];
    if (done.waiting > 0) said.push(`${done.waiting} will be sent again in a moment.`);
    if (done.left > 0)
      said.push(`${done.left} left as they were: nothing to change, or no right to change them.`);
    if (done.failed > 0) said.push(`${done.failed} not changed; the journal says why.`);
    deck.say(said.join(' '), { label: 'Undo', run: done.undo });
  }

  function actionOf(): PostsAction | null {
    switch (what) {
      case 'approve':
        return null;
      case 'publish':
        return { do: 'publish' };
      case 'schedule':
        return { do: 'schedule', spread: $state.snapshot(spread) };
      case 'tag':
        return { do: 'tag', add: $state.snapshot(add), remove: $state.snapshot(remove) };
    }
  }
</script>

<dialog
  bind:this={dialog}
  onclose={() => onclose(isDone)}
  aria-labelledby="many-title"
  class="m-auto flex w-[32rem] max-w-[calc(100vw-1rem)] flex-col gap-4 rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="many-title" class="text-lg font-semibold">Publish, schedule or tag</h2>
  <Choice
    legend="What to do"
    isStacked
    options={options.map(([value, text]) => [value, text] as const)}
    bind:value={() => what, (value) => (wished = value)}
  />
  {#if what === 'schedule'}
    <SpreadFields what="Posts" bind:spread />
    <p class="text-sm text-quiet" role="status">
      {dates.length > 1 ? `From ${at(dates[0])} to ${at(dates.at(-1))}` : at(dates[0])}, your time
      zone. The blog publishes them at these times, whether this application is open or not.
    </p>
  {:else if what === 'tag'}
    <Names label="Add tags" value={add} onchange={(value) => (add = value)} />
    <Names label="Remove tags" value={remove} onchange={(value) => (remove = value)} />
  {/if}
  <div class="flex gap-2">
    <button class="strong btn btn-sm" disabled={!isReady} onclick={run}>{label}</button>
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Cancel</button>
  </div>
</dialog>
