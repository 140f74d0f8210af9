<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import Minus from '@lucide/svelte/icons/minus';
  import type { Place, Right } from '$lib/core/model/place.ts';
  import { countDrafts } from '$lib/data/desk.ts';
  import { countItems } from '$lib/data/items.ts';
  import { patchPlace } from '$lib/data/places.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { readNow } from '$lib/ui/readNow.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { plural, formatDateTime, rightLabels } from '$lib/ui/messages.ts';
  import { checkPlace, setKey, removeKey, disconnectPlace } from '$lib/work/connect.ts';
  import { readPlaces } from '$lib/work/read.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import KeyForm from './KeyForm.svelte';

  let { place }: { place: Place } = $props();
  const items = live(() => {
    const { id } = place;
    return () => countItems(id);
  });
  const drafts = live(() => {
    const { id } = place;
    return () => countDrafts(id);
  });
  const rights: Right[] = $derived(
    place.micropub === ''
      ? ['read']
      : [
          'read',
          ...(place.rights.includes('draft') ? (['draft'] as const) : []),
          'create',
          'update',
          'delete',
          ...(place.kind === 'channel' ? (['media'] as const) : [])
        ]
  );
  const may = (right: Right) => place.rights.includes(right);

  const commentRules = [
    { value: 'off', label: 'Not shown in posts' },
    { value: 'ask', label: 'I choose which to show in posts' },
    { value: 'always', label: 'Show all new ones; those with links wait for me' }
  ] as const;
  async function setComments(value: string) {
    const comments = commentRules.find((rule) => rule.value === value)?.value ?? 'off';
    await patchPlace(place.id, { comments });
    if (comments !== 'off') void attempt(() => readPlaces({ ...place, comments }));
  }

  async function give(key: string, signal: AbortSignal) {
    await setKey(place, key, signal);
    // What only its owner sees can be read now.
    void attempt(() => readPlaces({ ...place, hasKey: true }));
  }
  async function check() {
    const done = await attempt(() =>
      runTask(`Checking ${place.title}`, (signal) => checkPlace(place, signal))
    );
    if (!done.problem) deck.say(`${place.title} is connected and works.`);
  }
</script>

<article
  aria-label={place.title}
  class="flex flex-col gap-3 rounded-container border border-l-4 border-line bg-sheet p-4 {place.kind ===
  'channel'
    ? 'border-l-video'
    : 'border-l-post'}"
>
  <header>
    <p class="text-sm text-quiet">
      {place.kind === 'blog' ? 'Blog' : place.hasKey ? 'Channel' : 'Channel, read only'}
    </p>
    <h2 class="text-lg font-semibold">{place.title}</h2>
    <p class="text-sm">
      {place.author ? `By ${place.author} · ` : ''}{plural(items.value ?? 0, 'item', 'items')} · checked
      {formatDateTime(place.checked)}
    </p>
    <p class="text-sm">
      <a href={place.url} target="_blank" rel="noreferrer" class="break-all underline"
        >{place.url}</a
      >
    </p>
  </header>
  {#if place.problem}
    <ProblemNote problem={place.problem} item={place.title}>
      {#snippet actions()}<button class="plain btn btn-sm" onclick={check}>Check again</button
        >{/snippet}
    </ProblemNote>
  {/if}
  <div>
    <h3 class="text-sm font-semibold">Permissions</h3>
    <ul class="grid gap-x-4 text-sm sm:grid-cols-2">
      {#each rights as right (right)}
        <li class="flex items-center gap-1.5 {may(right) ? '' : 'text-quiet'}">
          {#if may(right)}<Check class="size-4" aria-hidden="true" />{:else}<Minus
              class="size-4"
              aria-hidden="true"
            />{/if}
          {rightLabels[right]}{may(right) ? '' : ' (not allowed)'}
        </li>
      {/each}
    </ul>
    {#if place.allowance}
      <p class="text-sm">
        {place.allowance.left} of {place.allowance.most} left this {place.allowance.per}, when last
        checked.
      </p>
    {/if}
  </div>
  {#if place.micropub}
    <KeyForm
      {place}
      goesTo={[place.micropub, place.tokenEndpoint]}
      purpose="Key for publishing to"
      help="Made at the {place.kind}, for programs. It stays in this browser, is used only to publish there, and is never exported or logged. Reading needs none."
      {give}
      take={() => removeKey(place)}
    />
  {:else if place.kind === 'blog'}
    <p class="text-sm">
      This blog has no Micropub endpoint, so posts cannot be published to it. You can still read it,
      and copy posts as HTML from the desk.
    </p>
  {/if}
  {#if place.kind === 'channel'}
    <label class="flex flex-col gap-1 text-sm">
      <span class="font-semibold">Comments on its videos</span>
      <select
        class="field"
        value={place.comments ?? 'off'}
        onchange={(event) => setComments(event.currentTarget.value)}
      >
        {#each commentRules as { value, label } (value)}<option {value}>{label}</option>{/each}
      </select>
    </label>
    {#if place.comments && place.comments !== 'off'}
      <p class="text-sm"><a class="underline" href="/comments">Review comments</a></p>
    {/if}
  {/if}
  <footer class="flex flex-wrap gap-2">
    <button class="plain btn btn-sm" onclick={check}
      >Check connection<span class="sr-only"> {place.title}</span></button
    >
    <button class="plain btn btn-sm" onclick={() => readNow(place)}>
      Refresh<span class="sr-only">: {place.title}</span>
    </button>
    <ConfirmButton
      label="Disconnect…"
      of={place.title}
      confirm="Disconnect (nothing is deleted there)"
      note={`Its ${plural(items.value ?? 0, 'item leaves', 'items leave')} the list, and twins keep only their other half. ${drafts.value ? `${plural(drafts.value, 'draft stays', 'drafts stay')} here for when you connect it again.` : ''}`}
      keep="Keep it"
      onconfirm={() => disconnectPlace(place)}
    />
  </footer>
</article>
