<script lang="ts">
  import { page } from '$app/state';
  import { formSchema } from '$lib/core/updates/draft.ts';
  import { MANNERS } from '$lib/core/lang/wordings.ts';
  import type { Version } from '$lib/core/updates/version.ts';
  import { entriesOfItem } from '$lib/data/outbox.ts';
  import { updateKey } from '$lib/make/update.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import UnsavedNote from '$lib/ui/UnsavedNote.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import DateTimeField from '$lib/ui/DateTimeField.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import AskedForm from '$lib/ui/updates/AskedForm.svelte';
  import Beside from '$lib/ui/updates/Beside.svelte';
  import Column from '$lib/ui/updates/Column.svelte';
  import { Updates } from '$lib/ui/updates/updatesState.svelte.ts';
  import { formLabels, mannerLabels } from '$lib/ui/updateMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { exportUpdates, publishUpdates } from '$lib/work/publishUpdates.ts';

  let updates = $state.raw(new Updates());
  let isCutShort = $state(false);
  const draft = $derived(updates.draft);

  $effect(() => {
    const { id } = page.params;
    if (!id) return;
    const next = new Updates();
    updates = next;
    void next.open(id);
    return () => void next.pictures.close();
  });
  $effect(() => updates.follow());

  const entries = live(() => {
    const id = updates.item?.id ?? '';
    return async () => new Map((await entriesOfItem(id)).map((e) => [e.key, e]));
  });
  const versionOf = (id: string) =>
    updates.versions[updates.networks.findIndex((n) => n.id === id)];
  const readyOf = (versions: readonly Version[]) =>
    updates.chosen.flatMap((network) => {
      const version = versions[updates.networks.indexOf(network)];
      return version && version.problems.length === 0 && version.payload.form === draft?.form
        ? [{ network, version }]
        : [];
    });
  const ready = $derived(readyOf(updates.versions));
  const held = $derived(updates.chosen.length - ready.length);
  const isPatternWrong = $derived(
    updates.networks.some((network) => updates.linkFor(network).isPatternWrong)
  );
  const isPast = $derived(!!draft?.on && new Date(draft.on).getTime() < Date.now());

  async function send(isForReview: boolean) {
    if (!updates.item || !draft) return;
    // What was typed last goes out as well.
    const last = readyOf(await updates.make());
    const at = draft.on ? new Date(draft.on).getTime() : Date.now();
    await updates.autosave.saveNow();
    await publishUpdates(updates.item, last, at, isForReview);
    deck.say(
      isForReview
        ? `${plural(last.length, 'update waits', 'updates wait')} for review.`
        : draft.on
          ? `${plural(last.length, 'update', 'updates')} scheduled, while this application is open.`
          : `${plural(last.length, 'update', 'updates')} being published.`
    );
  }
</script>

<svelte:head><title>Updates: {updates.item?.title ?? ''} · Swift Twin</title></svelte:head>

{#if updates.isMissing}
  <EmptyState title="This item is not here">
    <p>It may have been removed at its place, or the place is no longer connected.</p>
    {#snippet actions()}<a class="strong btn btn-sm" href="/updates">All updates</a>{/snippet}
  </EmptyState>
{:else if updates.item && draft}
  <div class="h-full overflow-y-auto">
    <div class="flex flex-col gap-4 p-4">
      <header class="flex flex-wrap items-center gap-3">
        <a href="/updates" class="text-sm underline">Updates</a>
        <h1
          class="line-clamp-2 min-w-0 flex-1 text-lg leading-tight font-semibold max-sm:basis-2/3"
          title={updates.item.title}
        >
          {updates.item.title}
        </h1>
        <div class="text-sm">
          <Choice
            legend="What it becomes"
            options={formSchema.options.map((form) => [form, formLabels[form]] as const)}
            bind:value={draft.form}
          />
        </div>
        <UndoButtons autosave={updates.autosave} />
      </header>
      <UnsavedNote autosave={updates.autosave} />
      {#if updates.networks.length === 0}
        <EmptyState title="No network is connected yet">
          <p>Updates are published to networks.</p>
          {#snippet actions()}<a class="strong btn btn-sm" href="/places">Connect one</a>{/snippet}
        </EmptyState>
      {:else}
        {#if draft.form === 'text'}
          <div class="grid gap-4 md:grid-cols-2">
            <div class="flex flex-col gap-2">
              <label class="flex flex-col gap-1">
                <span class="text-sm font-semibold">A text for all places</span>
                <textarea
                  class="field"
                  rows="4"
                  placeholder="Left empty, each place gets a text of its own from the item."
                  value={draft.text ?? ''}
                  oninput={(event) => (draft.text = event.currentTarget.value || null)}></textarea>
              </label>
              {#if updates.untouched.length > 0}
                <p class="text-sm">
                  Changing it leaves what was written for
                  {updates.untouched.map((n) => n.title).join(', ')}.
                </p>
              {/if}
              <div class="flex flex-col gap-2 text-sm">
                <fieldset class="flex flex-wrap items-center gap-3" disabled={draft.text !== null}>
                  <legend class="sr-only">Wording</legend>
                  <Choice
                    legend="Tone"
                    shown="beside"
                    options={MANNERS.map((manner) => [manner, mannerLabels[manner]] as const)}
                    bind:value={draft.manner}
                  />
                  <button class="bare btn btn-sm" onclick={() => draft.variant++}>Reword</button>
                </fieldset>
                {#if updates.networks.some((n) => n.limits.hasThreads)}
                  <label class="flex items-center gap-2">
                    <input type="checkbox" bind:checked={draft.inParts} /> In numbered parts where it
                    is too long and the place has threads
                  </label>
                {/if}
                <details open={isPatternWrong}>
                  <summary>Tags on links, hashtags always and never</summary>
                  <div class="flex flex-col gap-2 pt-2">
                    <label class="flex flex-col gap-1">
                      <span class="font-semibold">Tags on the link</span>
                      <input
                        class="field times"
                        spellcheck="false"
                        value={updates.pattern}
                        oninput={(event) => updates.setPattern(event.currentTarget.value)}
                      />
                    </label>
                    <div class="grid gap-2 sm:grid-cols-2">
                      <Names
                        label="Hashtags always"
                        value={updates.tagLists.own}
                        onchange={(own) => updates.setTagLists({ own })}
                      />
                      <Names
                        label="Hashtags never"
                        value={updates.tagLists.banned}
                        onchange={(banned) => updates.setTagLists({ banned })}
                      />
                    </div>
                    {#if isPatternWrong}<p role="alert">
                        The tags name a field that there is not. Known are place.name, place.kind,
                        item.slug, item.kind and update.kind.
                      </p>{/if}
                  </div>
                </details>
              </div>
            </div>
            <div class="flex flex-col gap-2 text-sm">
              <Beside {updates} />
            </div>
          </div>
        {:else}
          <AskedForm {updates} form={draft.form} />
          <label class="flex items-center gap-2 text-sm">
            Open for
            <input class="field w-20" type="number" min="1" max="720" bind:value={draft.openFor} />
            hours
          </label>
        {/if}
        <div
          class="sticky top-0 z-10 flex flex-wrap items-center gap-3 border-y border-line bg-canvas py-2"
        >
          <button
            class="strong btn btn-sm"
            disabled={ready.length === 0 || isPast || isPatternWrong}
            onclick={() => send(false)}
          >
            {draft.on ? 'Schedule' : 'Publish'}
            {draft.form === 'text' ? '' : `the ${draft.form}`}
            {draft.on ? 'for' : 'to'}
            {plural(ready.length, 'place', 'places')}
          </button>
          <button
            class="plain btn btn-sm"
            disabled={ready.length === 0 || isPast || isPatternWrong}
            onclick={() => send(true)}>Send to review</button
          >
          <DateTimeField bind:value={draft.on} />
          <p class="text-sm" role="status">
            {isPast ? 'Choose a date to come.' : ''}
            {held > 0 ? `${plural(held, 'place', 'places')} cannot take it as it is.` : ''}
          </p>
          <button
            class="bare btn btn-sm"
            disabled={ready.length === 0}
            onclick={() => updates.item && exportUpdates(updates.item, ready)}
            >Export as files</button
          >
          <div class="ml-auto text-sm">
            <Choice
              legend="How much is shown"
              options={[
                [false, 'Full'],
                [true, 'In a feed']
              ]}
              bind:value={isCutShort}
            />
          </div>
        </div>
        <div class="columns grid items-start gap-3">
          {#each updates.networks as network (network.id)}
            <Column
              {updates}
              {network}
              version={versionOf(network.id)}
              entry={entries.value?.get(updateKey(updates.item, draft.form, network))}
              {isCutShort}
            />
          {/each}
        </div>
      {/if}
    </div>
  </div>
{/if}

<style>
  .columns {
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 14.5rem), 1fr));
  }
</style>
