<script lang="ts">
  import type { ActorFacts } from '$lib/core/feeds/actor.ts';
  import type { Mailbox } from '$lib/core/model/mailbox.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { tick } from 'svelte';
  import { allPlaces } from '$lib/data/places.ts';
  import { saveSetting } from '$lib/data/settings.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import MailboxFound from './MailboxFound.svelte';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { plural, formatDate } from '$lib/ui/messages.ts';
  import { typed } from '$lib/ui/typed.svelte.ts';
  import { findPlace, connectPlace, type Found } from '$lib/work/connect.ts';
  import { findMailbox } from '$lib/work/mailbox.ts';
  import { findNetwork, connectNetwork } from '$lib/work/networks.ts';
  import { readPlaces } from '$lib/work/read.ts';
  import { sendOrigins } from '$lib/work/start.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  interface Props {
    label?: string;
    help?: string;
    /** An address to try it with, where the demo world runs beside. */
    example?: { label: string; address: string } | null;
  }
  let {
    label = 'Connect a channel or blog',
    help = 'Any address of a channel, blog, network or mailbox: its page, one video or post, or its feed. You see whose it is before anything is connected.',
    example = null
  }: Props = $props();
  const id = $props.id();
  const form = typed(() => 'connect', { address: '' });
  let problem = $state<Problem | null>(null);
  let found = $state.raw<Found | null>(null);
  let network = $state.raw<ActorFacts | null>(null);
  let mailbox = $state.raw<Mailbox | null>(null);
  let isBusy = $state(false);

  async function find(input: string) {
    isBusy = true;
    found = null;
    network = null;
    mailbox = null;
    const done = await attempt(() =>
      runTask('Looking at the address', (signal) => findPlace(input, signal))
    );
    // What has no feed may take updates.
    const other =
      done.problem?.kind === 'no-feed-found'
        ? await attempt(() =>
            runTask('Looking for a network', (signal) => findNetwork(input, signal))
          )
        : null;
    const letters =
      other && !other.value
        ? await attempt(() =>
            runTask('Looking for a mailbox', (signal) => findMailbox(input, signal))
          )
        : null;
    isBusy = false;
    mailbox = letters?.value ?? null;
    problem = other?.value || mailbox ? null : done.problem;
    found = done.value;
    network = other?.value ?? null;
  }

  async function linkFound(facts: ActorFacts) {
    const done = await attempt(() =>
      runTask(`Linking ${facts.title}`, (signal) => connectNetwork(facts, signal))
    );
    problem = done.problem;
    if (!done.value) return;
    network = null;
    form.clear();
    deck.say(`${facts.title} is connected. Add a key to publish there.`);
    // Its files go there straight from this page.
    if (!(await sendOrigins())) location.reload();
  }

  async function link() {
    if (!found) return;
    if ((await allPlaces()).length === 0) await saveSetting('firstVisit', 'open');
    const place = await connectPlace(found);
    found = null;
    form.clear();
    const knew = await sendOrigins();
    // The page's policy names the origins it may frame; a new one takes effect with a new page, which
    // reads the place.
    if (!knew && place.kind === 'channel') {
      await saveSetting('toRead', place.id);
      await tick();
      return location.reload();
    }
    const done = await attempt(() => readPlaces(place));
    if (done.problem) problem = done.problem;
    else deck.say(`${place.title} is connected.`);
  }
</script>

<form
  class="flex flex-col gap-2"
  onsubmit={(event) => {
    event.preventDefault();
    void find(form.fields.address);
  }}
>
  <label class="font-semibold" for={id}>{label}</label>
  <div class="flex flex-wrap gap-2">
    <input
      {id}
      class="field min-w-0 flex-1 basis-72"
      type="text"
      inputmode="url"
      autocomplete="off"
      spellcheck="false"
      aria-describedby="{id}-help"
      placeholder="https://"
      bind:value={form.fields.address}
    />
    <button class="strong btn" disabled={isBusy || form.fields.address.trim() === ''}>Find</button>
    {#if example}
      {@const { label: words, address } = example}
      <button type="button" class="plain btn" disabled={isBusy} onclick={() => find(address)}
        >{words}</button
      >
    {/if}
  </div>
  <p id="{id}-help" class="text-sm text-quiet">{help}</p>
</form>
{#if problem}<ProblemNote {problem} />{/if}
{#if network}
  <section
    aria-label="What was found"
    class="flex flex-col gap-3 rounded-container border border-l-4 border-edge bg-sheet p-4"
  >
    <div>
      <p class="text-sm text-quiet">A network that takes updates</p>
      <h2 class="text-lg font-semibold">{network.title}</h2>
      <p class="text-sm">{network.about}</p>
      <p class="figures break-all text-quiet">{network.actor}</p>
    </div>
    <div class="flex gap-2">
      <button
        class="strong btn btn-sm"
        onclick={() => {
          if (network) void linkFound(network);
        }}>Connect this network</button
      >
      <button class="bare btn btn-sm" onclick={() => (network = null)}>Cancel</button>
    </div>
  </section>
{/if}
{#if mailbox}
  <MailboxFound {mailbox} ondone={() => (mailbox = null)} />
{/if}
{#if found}
  <section
    aria-label="What was found"
    class="flex flex-col gap-3 rounded-container border border-l-4 border-edge bg-sheet p-4 {found.kind ===
    'channel'
      ? 'border-l-video'
      : 'border-l-post'}"
  >
    <div>
      <p class="text-sm text-quiet">{found.kind === 'channel' ? 'A channel' : 'A blog'}</p>
      <h2 class="text-lg font-semibold">{found.title}</h2>
      <p class="text-sm">
        {found.author ? `By ${found.author}. ` : ''}{plural(
          found.count,
          'entry',
          'entries'
        )}{found.hasMore ? ' on the first page of its feed, and more pages' : ' in its feed'}.
        {found.passedOver > 0
          ? `${plural(found.passedOver, 'entry has', 'entries have')} no id, address or title and cannot be read.`
          : ''}
      </p>
      <p class="figures break-all text-quiet">{found.feedUrl}</p>
    </div>
    <div>
      <h3 class="text-sm font-semibold">Latest</h3>
      <ul class="text-sm">
        {#each found.latest as item, i (i)}
          <li class="truncate">
            {item.title} <span class="text-quiet">{formatDate(item.published)}</span>
          </li>
        {/each}
      </ul>
    </div>
    <div class="grid gap-3 text-sm sm:grid-cols-2">
      <div>
        <h3 class="font-semibold">What Swift Twin may do</h3>
        <ul class="list-disc pl-5">
          <li>Read what is public there</li>
          {#if found.micropub}<li>Publish, once you add a key for this {found.kind}</li>{/if}
        </ul>
      </div>
      <div>
        <h3 class="font-semibold">What it may not</h3>
        <ul class="list-disc pl-5">
          {#if found.micropub}
            <li>Edit, upload or delete anything before you add a key</li>
            {#if found.kind === 'channel'}<li>See private videos that it did not upload</li>{/if}
          {:else if found.kind === 'channel'}
            <li>Edit, upload or delete anything</li>
            <li>See private videos</li>
          {:else}
            <li>Publish: the blog has no Micropub endpoint</li>
          {/if}
        </ul>
      </div>
    </div>
    {#if found.others.length > 0}
      <div class="text-sm">
        <h3 class="font-semibold">Other feeds on this page</h3>
        <ul>
          {#each found.others as other (other.url)}
            <li>
              <button class="underline" onclick={() => find(other.url)}
                >{other.title || other.url}</button
              >
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    <div class="flex gap-2">
      <button class="strong btn btn-sm" onclick={link}>Connect (read only)</button>
      <button class="bare btn btn-sm" onclick={() => (found = null)}>Cancel</button>
    </div>
  </section>
{/if}
