<script lang="ts">
  import type { Problem } from '$lib/core/model/place.ts';
  import type { Twin } from '$lib/core/model/twin.ts';
  import { isPost } from '$lib/core/delivery/payload.ts';
  import { getBody, getItem } from '$lib/data/items.ts';
  import { getEntry } from '$lib/data/outbox.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import TheirVersion from '$lib/ui/TheirVersion.svelte';
  import WhatChanged from '$lib/ui/changes/WhatChanged.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { retitlePost } from '$lib/delivery/changes.ts';
  import { acceptChanges, settleLostVideo } from '$lib/work/drift.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  let { twin, onclose }: { twin: Twin; onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let problem = $state<Problem | null>(null);
  const reason = $derived(twin.reason.kind === 'differs' ? twin.reason : null);
  const differences = $derived(reason?.differences ?? []);
  const changes = $derived(reason?.changes ?? []);
  const isLost = $derived(
    changes.some((c) => c.side === 'video' && (c.what === 'gone' || c.what === 'visibility'))
  );
  const isEdited = $derived(changes.some((c) => c.side === 'post'));
  const isRetitled = $derived(differences.length > 0);
  /** The half that was made here, where the other one changed since. */
  const updates = $derived(
    !twin.video || !twin.post
      ? null
      : twin.post.isMade && (isRetitled || changes.some((c) => c.side === 'video'))
        ? 'post'
        : twin.video.isMade && (isRetitled || changes.some((c) => c.side === 'post'))
          ? 'video'
          : null
  );

  $effect(() => dialog?.showModal());

  /** Of a post that was changed at the blog: what was last sent, and what stands there. */
  const versions = live(() => {
    const { post } = twin;
    const isAsked = isEdited;
    return async () => {
      if (!isAsked || !post) return null;
      const [item, html] = await Promise.all([getItem(post.id), getBody(post.id)]);
      const entry = item?.origin ? await getEntry(item.origin) : undefined;
      if (!item || !entry) return null;
      const sent = entry.sent && isPost(entry.sent) ? entry.sent : null;
      const status = item.visibility === 'draft' ? ('draft' as const) : ('public' as const);
      return { sent, theirs: { title: item.title, html, status } };
    };
  });

  async function take() {
    const video = twin.video && (await getItem(twin.video.id));
    const post = twin.post && (await getItem(twin.post.id));
    if (!video || !post) return;
    const done = await attempt(() =>
      runTask(`Retitling “${post.title}”`, () => retitlePost(video, post))
    );
    problem = done.problem;
    if (problem) return;
    deck.say('The post now has the title of the video.');
    dialog?.close();
  }

  async function accept() {
    const undo = await acceptChanges([twin]);
    deck.say(isEdited ? 'The post stays as it is at the blog.' : 'Both stay as they are.', {
      label: 'Undo',
      run: undo
    });
    dialog?.close();
  }

  async function settle(choice: 'note' | 'draft') {
    const title = twin.post?.title ?? '';
    const done = await attempt(() =>
      runTask(`Changing “${title}”`, () => settleLostVideo(twin, choice))
    );
    problem = done.problem;
    if (problem) return;
    const undo = done.value;
    if (undo) {
      const said = choice === 'draft' ? 'is a draft now' : 'has a note in place of the video';
      deck.say(`“${title}” ${said}.`, { label: 'Undo', run: undo });
    } else deck.say(`“${title}” shows no player of this video. Nothing was changed.`);
    dialog?.close();
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  aria-labelledby="drift-title"
  class="m-auto flex max-h-[90vh] w-[36rem] max-w-[calc(100vw-1rem)] flex-col gap-4 overflow-y-auto rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="drift-title" class="text-lg font-semibold">What has drifted</h2>
  <WhatChanged reason={twin.reason} />
  {#if versions.value}
    {@const { sent, theirs } = versions.value}
    <TheirVersion {theirs} ours={sent} onkeep={accept} />
    {#if !updates}
      <p class="text-sm text-quiet">
        To publish your version instead, open the desk and update the post: both are shown once more
        before anything is overwritten.
      </p>
    {/if}
  {/if}
  {#if isLost}
    <p class="text-sm text-quiet">
      Readers of the post see a player that does not play. The text of the post stays either way.
    </p>
  {:else if updates}
    <p class="text-sm text-quiet">
      Update the {updates} to see what would change in it. Your edits stay, and you choose what to take.
    </p>
  {:else if differences.length > 0}
    <p class="text-sm text-quiet">Only the title changes; the text of the post stays as it is.</p>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  <div class="flex flex-wrap gap-2">
    {#if isLost}
      <button class="strong btn btn-sm" onclick={() => settle('note')}
        >Replace the video with a note</button
      >
      <button class="plain btn btn-sm" onclick={() => settle('draft')}
        >Turn the post into a draft</button
      >
    {:else if updates}
      <a class="strong btn btn-sm" href="/changes/{twin.id}">Update the {updates}…</a>
    {/if}
    {#if differences.length > 0}
      <button class="{updates ? 'plain' : 'strong'} btn btn-sm" onclick={take}
        >Give the post this title</button
      >
    {/if}
    {#if versions.value && !updates && twin.video}
      <a class="plain btn btn-sm" href="/desk/{twin.video.id}">Open the desk</a>
    {/if}
    {#if !versions.value}
      <button class="plain btn btn-sm" onclick={accept}
        >{differences.length > 0 && changes.length === 0
          ? 'Keep both titles'
          : 'Keep as they are'}</button
      >
    {/if}
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
