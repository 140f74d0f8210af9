<script lang="ts">
  import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
  import type { Network } from '$lib/core/model/network.ts';
  import type { Version } from '$lib/core/updates/version.ts';
  import { getNetwork } from '$lib/data/networks.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import Names from '$lib/ui/desk/Names.svelte';
  import { versionMessage } from '$lib/ui/updateMessages.ts';
  import Preview from './Preview.svelte';
  import Published from './Published.svelte';
  import type { Updates } from './updatesState.svelte.ts';

  interface Props {
    updates: Updates;
    network: Network;
    version: Version | undefined;
    entry: OutboxEntry | undefined;
    isCutShort: boolean;
  }
  let { updates, network, version, entry, isCutShort }: Props = $props();
  const isChosen = $derived(updates.chosen.some((n) => n.id === network.id));
  const own = $derived(updates.own(network.id));
  const isText = $derived(updates.draft?.form === 'text');
  const isOver = $derived(version !== undefined && version.length > version.limit);
  const now = live(() => {
    const { id } = network;
    return () => getNetwork(id);
  });
  const allowance = $derived((now.value ?? network).allowance);
  /** A place that takes nothing of this form says so in a line. */
  const cannot = $derived(
    version?.problems.find((p) => p.kind === 'no-polls-here' || p.kind === 'no-quizzes-here')
  );
  const id = $props.id();
  const { format } = new Intl.NumberFormat('en');
  const used = $derived(
    (updates.hashtags.get(network.id) ?? [])
      .flatMap(({ tag, uses }) => (uses === null ? [] : [`${tag} ${format(uses)}`]))
      .join(', ')
  );
  const withSign = (tags: string[]) => tags.map((t) => (t.startsWith('#') ? t : `#${t}`));
</script>

<section
  aria-label={network.title}
  class="flex min-w-0 flex-col gap-2 rounded-container border border-l-4 border-line bg-sheet p-3 {isChosen
    ? 'border-l-ink'
    : ''}"
>
  <label class="flex items-center gap-2 font-semibold">
    <input
      type="checkbox"
      checked={isChosen}
      disabled={!network.hasKey || cannot !== undefined}
      onchange={(event) => updates.choose(network.id, event.currentTarget.checked)}
    />
    {network.title}
  </label>
  {#if !network.hasKey}
    <p class="text-sm"><a href="/places">Add a key</a> to publish there.</p>
  {/if}
  {#if cannot}
    <p class="text-sm text-quiet">{versionMessage(cannot)}</p>
  {:else if version}
    {#if isText}
      <div class="flex items-baseline justify-between gap-2 text-sm">
        <label for="{id}-text" class="text-quiet"
          >{own.text === null ? 'Text' : 'Text for this place only'}</label
        >
        <span class="figures {isOver ? 'font-semibold text-ink underline' : 'text-quiet'}"
          >{version.length} of {version.limit}</span
        >
      </div>
      <textarea
        id="{id}-text"
        class="field min-h-32 text-sm"
        value={version.payload.text}
        oninput={(event) => updates.setOwn(network.id, { text: event.currentTarget.value })}
      ></textarea>
      {#if own.text !== null}
        <button
          class="bare btn self-start btn-sm"
          onclick={() => updates.setOwn(network.id, { text: null })}
          >Back to the {updates.draft?.text === null ? 'proposal' : 'common text'}</button
        >
      {:else if version.isCut}
        <p class="text-sm">The common text is cut to fit.</p>
      {/if}
      {#if network.limits.hashtags > 0}
        <Names
          label="Hashtags"
          value={[...version.payload.hashtags]}
          onchange={(tags) => updates.setOwn(network.id, { hashtags: withSign(tags) })}
        />
        {#if used}<p class="text-xs text-quiet">Used here: {used}</p>{/if}
      {/if}
    {/if}
    {#if version.more.length > 0}
      <details class="text-sm">
        <summary>A thread of {version.more.length + 1} parts</summary>
        <ol start="2" class="list-decimal pl-6">
          {#each version.more as part, i (i)}<li class="whitespace-pre-line">{part}</li>{/each}
        </ol>
      </details>
    {/if}
    {#if version.problems.length > 0}
      <ul class="list-disc pl-5 text-sm" aria-label="To fix">
        {#each version.problems as problem, i (i)}<li>{versionMessage(problem)}</li>{/each}
      </ul>
    {/if}
    <h3 class="text-sm text-quiet">As it will be seen{isCutShort ? ', in a stream' : ''}</h3>
    {#key updates.draft?.form}
      <Preview
        payload={version.payload}
        limits={network.limits}
        {isCutShort}
        addressOf={(url) => updates.pictures.addressOf(url)}
      />
    {/key}
  {/if}
  {#if entry}<Published {entry} {network} {version} />{/if}
  {#if allowance}
    <p class="mt-auto text-xs text-quiet">
      Of {allowance.most} a {allowance.per}, {allowance.left} are left.
    </p>
  {/if}
</section>
