<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { NoUpdate } from '$lib/work/twinUpdate.ts';
  import { acceptChanges } from '$lib/work/drift.ts';
  import ChangeCard from '$lib/ui/changes/ChangeCard.svelte';
  import { UpdateState } from '$lib/ui/changes/updateState.svelte.ts';
  import WhatChanged from '$lib/ui/changes/WhatChanged.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import SafeHtml from '$lib/ui/desk/SafeHtml.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';

  const view = new UpdateState();
  const id = $derived(page.params.id ?? '');
  $effect(() => {
    void view.open(id);
  });
  const title = $derived(view.twin?.post?.title ?? view.twin?.video?.title ?? '');
  const language = $derived(view.twin?.video?.language ?? '');
  const side = $derived(view.plan?.side ?? (view.twin?.post?.isMade ? 'post' : 'video'));
  const place = $derived(side === 'post' ? 'blog' : 'channel');

  const reasons: Record<NoUpdate | 'unknown', { title: string; text: string }> = {
    'not-made-here': {
      title: 'Neither half was made here',
      text: 'Only a post or video that was made from the other one here can be updated from it. Edit it at its place, or keep both as they are.'
    },
    'on-the-desk': {
      title: 'The desk has changes that are not published',
      text: 'Publish or discard them on the desk first, then compare again.'
    },
    'being-sent': {
      title: 'It is being published',
      text: 'Wait until it is done, then compare again.'
    },
    gone: {
      title: 'The video or the post is no longer there',
      text: 'Refresh In step to see what is left.'
    },
    unknown: { title: 'Nothing is known of this item', text: 'It may have been removed.' }
  };

  async function send() {
    if (await view.send()) await goto('/');
  }
  async function accept() {
    if (!view.twin) return;
    const undo = await acceptChanges([view.twin]);
    deck.say(`“${title}” stays as it is.`, { label: 'Undo', run: undo });
    await goto('/');
  }
</script>

<svelte:head><title>Update {title} · Swift Twin</title></svelte:head>

<div class="flex h-full flex-col">
  <div class="min-h-0 flex-1 overflow-y-auto">
    <div class="mx-auto flex max-w-5xl flex-col gap-3 px-3 py-3">
      <header class="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h1 class="text-lg font-semibold">{title ? `Update “${title}”` : 'Update'}</h1>
        <span class="ml-auto flex gap-2">
          {#if view.twin?.video}
            <a class="bare btn btn-sm" href="/desk/{view.twin.video.id}">Open the desk</a>
          {/if}
          <a class="bare btn btn-sm" href="/">Back to In step</a>
        </span>
      </header>
      {#if view.problem}<ProblemNote problem={view.problem} />{/if}
      {#if !view.isReading && !view.plan && view.twin}
        <button class="plain btn self-start btn-sm" onclick={() => view.open(id)}
          >Compare again</button
        >
      {/if}
      {#if view.twin && view.twin.reason.kind === 'differs'}
        <section aria-labelledby="changed" class="flex flex-col gap-1.5">
          <h2 id="changed" class="font-semibold">What changed</h2>
          <WhatChanged reason={view.twin.reason} />
        </section>
      {/if}
      {#if view.isReading}
        <p class="text-quiet" role="status">Comparing the post with its video…</p>
      {:else if view.why}
        {@const { title: heading, text } = reasons[view.why]}
        <EmptyState title={heading}><p>{text}</p></EmptyState>
      {:else if view.plan && view.changes.length === 0}
        <EmptyState title="The {side} would not change">
          <p>What changed makes no difference to it. You can keep it as it is.</p>
        </EmptyState>
      {:else if view.plan}
        <section aria-labelledby="proposed" class="flex flex-col gap-2">
          <div class="flex flex-wrap items-center gap-3">
            <h2 id="proposed" class="font-semibold">
              Changes to the {side} ({view.changes.length})
            </h2>
            {#if view.conflicts > 0}
              <p class="text-sm">
                {plural(view.conflicts, 'place was', 'places were')} changed on both sides. Choose for
                each.
              </p>
            {/if}
            <span class="ml-auto flex gap-2">
              <button class="plain btn btn-sm" onclick={() => view.takeFree()}
                >Take all that does not conflict</button
              >
              <button class="bare btn btn-sm" onclick={() => view.takeNone()}>Take none</button>
            </span>
          </div>
          <p class="text-sm text-quiet">
            Crossed out goes, marked comes. Everything else stays as it is at the {place}, with your
            edits.
          </p>
          <ul class="flex flex-col gap-2" aria-label="Changes to the {side}">
            {#each view.changes as change, index (index)}
              {#if change.under && change.under !== view.changes[index - 1]?.under}
                <li class="pt-2 text-sm text-quiet">Under “{change.under}”</li>
              {/if}
              <ChangeCard
                {change}
                {index}
                {language}
                {place}
                choice={view.choices.get(index) ?? 'mine'}
                onchoose={(choice) => view.choose(index, choice)}
              />
            {/each}
          </ul>
          {#if side === 'video'}
            <p class="text-sm text-quiet">
              What the video shows and says stays as it is. To tell it anew,
              <a class="underline" href="/booth/{view.twin?.post?.id}"
                >make a new one in the booth</a
              >.
            </p>
          {/if}
          <details>
            <summary class="cursor-pointer text-sm font-semibold"
              >Preview the updated {side}</summary
            >
            {#if view.updated}
              <div class="mt-2 rounded-container border border-line bg-sheet p-3">
                <p class="reading text-xl font-semibold">{view.updated.title}</p>
                {#if side === 'post'}
                  <SafeHtml html={view.updated.html} label="The updated post" {language} isTall />
                {:else}
                  <p class="reading text-sm whitespace-pre-line">{view.updated.html}</p>
                {/if}
              </div>
            {/if}
          </details>
        </section>
      {/if}
    </div>
  </div>
  {#if view.twin && !view.isReading}
    <div class="flex flex-wrap items-center gap-2 border-t border-line bg-sheet px-3 py-2">
      {#if view.plan && view.changes.length > 0}
        <button
          class="strong btn btn-sm"
          disabled={view.taken === 0 || view.isSending}
          onclick={send}>Update the {side} ({view.taken} of {view.changes.length})</button
        >
      {/if}
      {#if view.twin.standing === 'drifted'}
        <button class="plain btn btn-sm" disabled={view.isSending} onclick={accept}
          >Keep it as it is</button
        >
      {/if}
    </div>
  {/if}
</div>
