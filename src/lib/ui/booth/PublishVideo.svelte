<script lang="ts">
  import {
    isHeldBack,
    tagsLength,
    USUAL_LIMITS,
    type VideoDetails
  } from '$lib/core/narration/details.ts';
  import { isFilm } from '$lib/core/narration/films.ts';
  import type { Narration } from '$lib/core/narration/narration.ts';
  import { listFields } from '$lib/core/article/template/fields.ts';
  import { canPublish, type Place } from '$lib/core/model/place.ts';
  import { itemByOrigin } from '$lib/data/items.ts';
  import { readRender } from '$lib/data/narrations.ts';
  import { getEntry } from '$lib/data/outbox.ts';
  import { readTransfer } from '$lib/data/transfers.ts';
  import { undoEntry } from '$lib/delivery/deliverEntry.ts';
  import { retryTransfer } from '$lib/delivery/transfers.ts';
  import { makeVideoPayload, videoKey } from '$lib/make/video.ts';
  import { detailsMessage } from '$lib/ui/boothMessages.ts';
  import { clock } from '$lib/ui/clock.svelte.ts';
  import DateTimeField from '$lib/ui/DateTimeField.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import DeliveryStatus from '$lib/ui/DeliveryStatus.svelte';
  import Names from '$lib/ui/desk/Names.svelte';
  import TemplateField from '$lib/ui/desk/TemplateField.svelte';
  import { isUnderWay, publishLabel, videoMessage } from '$lib/ui/deliveryMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import PublishPanel from '$lib/ui/PublishPanel.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { contentOf } from '$lib/work/narrate.ts';
  import { publishVideo } from '$lib/work/publishVideo.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const details = $derived(booth.narration?.details);
  const able = $derived(booth.channels.filter(canPublish));
  const render = live(() => {
    const id = booth.post?.id;
    return () => (id ? readRender(id) : null);
  });
  const chosen = $derived(booth.channels.filter((c) => details?.placeIds.includes(c.id)));
  const categories = $derived([
    ...new Set([
      ...chosen.flatMap((channel) => channel.categories ?? []),
      ...(details?.category ? [details.category] : [])
    ])
  ]);
  const now = clock(() => details?.visibility === 'dated');
  /** As it would go out to the first of the channels. */
  const made = $derived(
    booth.post &&
      details &&
      makeVideoPayload({
        post: booth.post,
        blog: booth.blog,
        channel: chosen[0] ?? null,
        details,
        render: render.value ?? null,
        now: new Date(now.value)
      })
  );
  const findings = $derived(made?.findings ?? []);
  const isMade = $derived(render.value?.state === 'done');
  const isStale = $derived(
    isMade &&
      booth.narration !== null &&
      render.value &&
      !isFilm(render.value) &&
      render.value.madeFrom !== contentOf(booth.narration)
  );
  const known = live(() => {
    const { post } = booth;
    const keys = post ? booth.channels.map((c) => ({ channel: c, key: videoKey(post, c) })) : [];
    return async () => {
      const all = await Promise.all(
        keys.map(async ({ channel, key }) => ({
          channel,
          entry: await getEntry(key),
          transfer: await readTransfer(key),
          item: await itemByOrigin(channel.id, key)
        }))
      );
      return all.flatMap(({ entry, ...rest }) =>
        entry && entry.state !== 'removed' ? [{ ...rest, entry }] : []
      );
    };
  });
  const delivered = $derived(known.value ?? []);
  const isBusy = $derived(delivered.some((s) => chosen.includes(s.channel) && isUnderWay(s.entry)));

  function choose(channel: Place, isOn: boolean) {
    if (!details) return;
    details.placeIds = isOn
      ? [...details.placeIds, channel.id]
      : details.placeIds.filter((id) => id !== channel.id);
  }
  async function publish() {
    const { post, narration } = booth;
    const file = render.value;
    if (!post || !narration || !file || !details) return;
    const kept = $state.snapshot(narration) as Narration;
    await runTask('Preparing the video', () =>
      publishVideo(kept, file, post, $state.snapshot(details) as VideoDetails)
    );
    deck.say('Uploading the video. The deck shows the progress.');
  }
  const hasForm = $derived(booth.channels.length > 0 && (isMade || delivered.length > 0));
  const verb = $derived.by(() => {
    if (delivered.some((s) => chosen.includes(s.channel) && s.entry.url)) return 'Update the video';
    if (details?.visibility === 'dated') return publishLabel(null, 'dated', details.on);
    return details?.visibility === 'private' ? 'Upload as private' : 'Publish now';
  });
  const action = $derived({
    label: verb,
    isReady: isMade && !isBusy && !isHeldBack(findings),
    run: publish
  });
  const count = (n: number, limit: number) => `${n} of ${limit}`;
</script>

{#if details && made}
  <PublishPanel side="video" action={hasForm ? action : undefined}>
    {#if booth.channels.length === 0}
      <p>No channel is connected yet. <a href="/places">Connect one</a>, or export the file.</p>
    {:else if !isMade && delivered.length === 0}
      <p>Render the video first, then publish it to your channels here.</p>
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
                ? 'It is connected read only.'
                : 'It has no way for applications to upload videos.'}
              {#if channel.micropub}<a href="/places">Add a key</a> to publish there.{/if}
            </p>
          {/if}
        {/each}
      </fieldset>
      <label class="flex flex-col gap-1">
        <span class="flex justify-between gap-2"
          ><span class="font-semibold">Title</span><span class="figures text-quiet"
            >{count([...details.title].length, USUAL_LIMITS.title)}</span
          ></span
        >
        <input class="field" bind:value={details.title} />
      </label>
      <TemplateField
        label="Description"
        rows={5}
        bind:value={details.description}
        fields={listFields(made.fields)}
      />
      <details>
        <summary
          >Preview <span class="figures text-quiet"
            >{count([...made.description].length, USUAL_LIMITS.description)}</span
          ></summary
        >
        <p class="max-h-60 overflow-y-auto py-1 break-words whitespace-pre-wrap">
          {made.description}
        </p>
      </details>
      <div>
        <Names label="Tags" value={details.tags} onchange={(tags) => (details.tags = tags)} />
        <p class="figures text-right text-quiet">
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
        <span class="font-semibold">Visibility</span>
        <select class="field" bind:value={details.visibility}>
          <option value="private">Private: only you</option>
          <option value="unlisted">Anyone with the link</option>
          <option value="public">Public, now</option>
          <option value="dated">Private until a date</option>
        </select>
      </label>
      {#if details.visibility === 'dated'}
        <DateTimeField bind:value={details.on} />
      {/if}
      <label class="flex items-center gap-2">
        <input
          type="checkbox"
          bind:checked={details.embeds}
          disabled={details.visibility === 'private'}
        />
        Embed it in the post once anyone can watch it
      </label>
      {#if findings.length > 0}
        <ul class="flex list-disc flex-col gap-1 pl-5">
          {#each findings as finding, i (i)}<li>{detailsMessage(finding)}</li>{/each}
        </ul>
      {/if}
    {/if}
    {#snippet status()}
      {#if hasForm}
        {#if !isMade}<p class="text-quiet">Render the video first.</p>
        {:else if isStale}<p class="text-quiet">
            The file was rendered before your last changes.
          </p>{/if}
      {/if}
      {#each delivered as { channel, entry, transfer, item } (channel.id)}
        <div
          class="flex flex-col gap-2 border-t border-line pt-2"
          role="group"
          aria-label="At {channel.title}"
        >
          <DeliveryStatus
            {entry}
            noun="video"
            message={entry.state === 'published'
              ? `${channel.title}: ${videoMessage(entry.payload, transfer)}`
              : ''}
            url={item?.visibility === 'public' || item?.visibility === 'unlisted' ? item.url : ''}
            onremove={() =>
              runTask(`Deleting “${entry.payload.title}”`, () => undoEntry(entry.key))}
          >
            {#if transfer?.problem && transfer.state !== 'ready'}
              <ProblemNote problem={transfer.problem} item={entry.payload.title}>
                {#snippet actions()}
                  <button class="plain btn btn-sm" onclick={() => retryTransfer(entry.key)}
                    >Resume the upload</button
                  >
                {/snippet}
              </ProblemNote>
            {/if}
          </DeliveryStatus>
        </div>
      {/each}
    {/snippet}
  </PublishPanel>
{/if}
