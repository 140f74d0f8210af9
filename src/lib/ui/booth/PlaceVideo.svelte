<script lang="ts">
  import {
    checkDetails,
    fillDescription,
    isHeldBack,
    tagsLength,
    USUAL_LIMITS,
    type VideoDetails
  } from '$lib/core/narration/details.ts';
  import type { Narration } from '$lib/core/narration/narration.ts';
  import { listFields } from '$lib/core/article/fields.ts';
  import { canPublish, type Place } from '$lib/core/model/place.ts';
  import { db } from '$lib/data/db.ts';
  import { detailsWords } from '$lib/ui/boothWords.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import TemplateField from '$lib/ui/desk/TemplateField.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { contentOf } from '$lib/work/narrate.ts';
  import { fieldsFor, isUnderWay, placeVideo, videoKey } from '$lib/work/placeVideo.ts';
  import { retryPost, undoPost } from '$lib/work/post.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';
  import { retryTransfer } from '$lib/work/transfer.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const details = $derived(booth.narration?.details);
  const able = $derived(booth.channels.filter(canPublish));
  const render = live(() => {
    const id = booth.post?.id;
    return () => (id ? db.renders.get(id) : undefined);
  });
  const chosen = $derived(booth.channels.filter((c) => details?.placeIds.includes(c.id)));
  const categories = $derived([
    ...new Set([
      ...chosen.flatMap((channel) => channel.categories ?? []),
      ...(details?.category ? [details.category] : [])
    ])
  ]);
  const fields = $derived(
    booth.post && fieldsFor(booth.post, booth.blog, chosen[0] ?? null, render.value?.chapters ?? [])
  );
  const description = $derived(
    details && fields ? fillDescription(details.description, fields) : { text: '', problems: [] }
  );
  const local = () => {
    const now = new Date();
    return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  };
  const findings = $derived(
    details ? checkDetails(details, description, USUAL_LIMITS, local()) : []
  );
  const isMade = $derived(render.value?.state === 'done');
  const isStale = $derived(
    isMade && booth.narration !== null && render.value?.madeFrom !== contentOf(booth.narration)
  );
  const stands = live(() => {
    const { post } = booth;
    const keys = post ? booth.channels.map((c) => ({ channel: c, key: videoKey(post, c) })) : [];
    return async () =>
      Promise.all(
        keys.map(async ({ channel, key }) => ({
          channel,
          entry: await db.outbox.get(key),
          transfer: await db.transfers.get(key)
        }))
      );
  });
  const known = $derived(
    (stands.value ?? []).filter((s) => s.entry && s.entry.state !== 'removed')
  );
  const isBusy = $derived(known.some((s) => chosen.includes(s.channel) && isUnderWay(s.entry)));

  function choose(channel: Place, isOn: boolean) {
    if (!details) return;
    details.placeIds = isOn
      ? [...details.placeIds, channel.id]
      : details.placeIds.filter((id) => id !== channel.id);
  }
  async function place() {
    const { post, narration } = booth;
    const made = render.value;
    if (!post || !narration || !made || !details) return;
    const kept = $state.snapshot(narration) as Narration;
    await runTask('Readying the video', () =>
      placeVideo(kept, made, post, $state.snapshot(details) as VideoDetails)
    );
    deck.say('The video is on its way; the deck shows how far it is.');
  }
  const count = (n: number, limit: number) => `${n} of ${limit}`;
</script>

{#if details && fields}
  <section
    aria-labelledby="place-video-title"
    class="flex flex-col gap-3 rounded-container border border-l-4 border-video bg-sheet p-3 text-sm"
  >
    <h2 id="place-video-title" class="text-base font-semibold">Place it</h2>
    {#if booth.channels.length === 0}
      <p>No channel is linked yet. <a href="/places">Link one</a>, or take the file out.</p>
    {:else if !isMade && known.length === 0}
      <p>Once the video is made, it goes to your channels from here.</p>
    {:else}
      <fieldset class="flex flex-col gap-1">
        <legend class="font-semibold">Channels</legend>
        {#each booth.channels as channel (channel.id)}
          <label class="flex items-center gap-2">
            <input
              type="checkbox"
              checked={details.placeIds.includes(channel.id)}
              disabled={!able.includes(channel)}
              onchange={(event) => choose(channel, event.currentTarget.checked)}
            />
            {channel.title}
          </label>
          {#if !able.includes(channel)}
            <p>
              {channel.micropub
                ? 'It is linked for reading.'
                : 'It names no way for programs to send videos.'}
              {#if channel.micropub}<a href="/places">Give it a key</a> to place videos there.{/if}
            </p>
          {/if}
        {/each}
      </fieldset>
      <label class="flex flex-col gap-1">
        <span class="flex justify-between gap-2"
          ><span class="font-semibold">Title</span><span class="times text-quiet"
            >{count([...details.title].length, USUAL_LIMITS.title)}</span
          ></span
        >
        <input class="field" bind:value={details.title} />
      </label>
      <TemplateField
        label="Description"
        rows={5}
        bind:value={details.description}
        fields={listFields(fields)}
      />
      <details>
        <summary
          >As it goes out <span class="times text-quiet"
            >{count([...description.text].length, USUAL_LIMITS.description)}</span
          ></summary
        >
        <p class="max-h-60 overflow-y-auto py-1 break-words whitespace-pre-wrap">
          {description.text}
        </p>
      </details>
      <div>
        <Names label="Tags" value={details.tags} onchange={(tags) => (details.tags = tags)} />
        <p class="times text-right text-quiet">
          {count(tagsLength(details.tags), USUAL_LIMITS.tags)}
        </p>
      </div>
      <div class="grid grid-cols-2 gap-2">
        <label class="flex flex-col gap-1">
          <span class="font-semibold">Category</span>
          {#if chosen.some((channel) => channel.categories?.length)}
            <select class="field" bind:value={details.category}>
              <option value="">None</option>
              {#each categories as category (category)}<option>{category}</option>{/each}
            </select>
          {:else}
            <input class="field" bind:value={details.category} />
          {/if}
        </label>
        <label class="flex flex-col gap-1">
          <span class="font-semibold">Language</span>
          <input class="field" bind:value={details.language} />
        </label>
      </div>
      <label class="flex flex-col gap-1">
        <span class="font-semibold">Who may see it</span>
        <select class="field" bind:value={details.visibility}>
          <option value="private">Private: only you</option>
          <option value="unlisted">Whoever has the address</option>
          <option value="public">Everybody, at once</option>
          <option value="dated">Private until a date</option>
        </select>
      </label>
      {#if details.visibility === 'dated'}
        <label class="flex flex-col gap-1">
          <span class="font-semibold">Date and time, here</span>
          <input class="field" type="datetime-local" bind:value={details.on} />
        </label>
      {/if}
      <label class="flex items-center gap-2">
        <input
          type="checkbox"
          bind:checked={details.embeds}
          disabled={details.visibility === 'private' || details.visibility === 'dated'}
        />
        Embed it in the post when it can be watched
      </label>
      {#if findings.length > 0}
        <ul class="flex list-disc flex-col gap-1 pl-5">
          {#each findings as finding, i (i)}<li>{detailsWords(finding)}</li>{/each}
        </ul>
      {/if}
      <button
        class="strong btn whitespace-normal"
        disabled={!isMade || isBusy || isHeldBack(findings)}
        onclick={place}
      >
        {known.some((s) => chosen.includes(s.channel) && s.entry?.url)
          ? 'Place it again, in place of the last'
          : 'Place the video'}
      </button>
      {#if !isMade}<p class="text-quiet">Make the video first.</p>
      {:else if isStale}<p class="text-quiet">
          The finished file is from before your last changes.
        </p>{/if}
    {/if}
    {#each known as { channel, entry, transfer } (channel.id)}
      {#if entry}
        <div
          class="flex flex-col gap-2 border-t border-line pt-2"
          role="group"
          aria-label="At {channel.title}"
        >
          <p role="status">
            {channel.title}:
            {#if entry.state === 'failed' || transfer?.state === 'failed'}not placed.
            {:else if isUnderWay(entry)}{entry.wanted === 'removed'
                ? 'being removed.'
                : 'being placed.'}
            {:else if transfer?.state === 'waiting'}the upload waits and goes on by itself.
            {:else if transfer?.state === 'sending'}being uploaded.
            {:else if transfer?.state === 'at-work'}the channel works on it.
            {:else}stands there.{/if}
          </p>
          {#if transfer?.problem && transfer.state !== 'ready'}
            <ProblemNote problem={transfer.problem} item={entry.payload.title}>
              {#snippet actions()}
                <button class="plain btn btn-sm" onclick={() => retryTransfer(entry.key)}
                  >Go on with the upload</button
                >
              {/snippet}
            </ProblemNote>
          {:else if entry.problem}
            <ProblemNote problem={entry.problem} item={entry.payload.title}>
              {#snippet actions()}
                <button class="plain btn btn-sm" onclick={() => retryPost(entry.key)}
                  >Try again</button
                >
              {/snippet}
            </ProblemNote>
          {/if}
          {#if entry.url}
            <span class="flex flex-wrap items-center gap-2">
              <a href={entry.url} target="_blank" rel="noreferrer">See it at the channel</a>
              <button
                class="plain btn btn-sm"
                onclick={() =>
                  runTask(`Removing “${entry.payload.title}”`, () => undoPost(entry.key))}
                >Undo: remove the video</button
              >
            </span>
          {/if}
        </div>
      {/if}
    {/each}
  </section>
{/if}
