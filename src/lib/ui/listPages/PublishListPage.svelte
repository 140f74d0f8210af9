<script lang="ts">
  import { goto } from '$app/navigation';
  import type { ListPage } from '$lib/core/listPages/listPage.ts';
  import { canPublish } from '$lib/core/model/place.ts';
  import { getListPage } from '$lib/data/listPages.ts';
  import { getEntry } from '$lib/data/outbox.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import DeliveryStatus from '$lib/ui/DeliveryStatus.svelte';
  import { isUnderWay } from '$lib/ui/deliveryMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import PublishPanel from '$lib/ui/PublishPanel.svelte';
  import { deleteListPage } from '$lib/work/listPages.ts';
  import { runTask } from '$lib/work/tasks.svelte.ts';
  import { problemTexts } from './listPageMessages.ts';
  import type { ListPageState } from './listPageState.svelte.ts';

  interface Props {
    view: ListPageState;
    page: ListPage;
  }
  let { view, page = $bindable() }: Props = $props();

  const VISIBILITIES = [
    ['draft', 'Draft: only you see it'],
    ['public', 'Public'],
    ['private', 'Private']
  ] as const;

  /** As it is kept, with what was learned when it was published. */
  const kept = live(() => {
    const { id } = page;
    return () => getListPage(id);
  });
  const entry = live(() => {
    const key = kept.value?.key ?? '';
    return () => (key ? getEntry(key) : undefined);
  });
  const items = $derived(view.made?.items ?? 0);
  const mayPublish = $derived(view.blog !== null && canPublish(view.blog));
  const isSending = $derived(entry.value !== undefined && isUnderWay(entry.value));
  const isThere = $derived(Boolean(entry.value?.url) && entry.value?.wanted === 'published');
  const draftOnly = $derived(view.blog !== null && !view.blog.rights.includes('create'));
  const action = $derived({
    label: `${isThere ? 'Update' : 'Publish'} the page with ${plural(items, 'item', 'items')}`,
    isReady: mayPublish && items > 0 && !isSending && page.title.trim() !== '',
    run: () => view.publish()
  });

  async function remove() {
    const there = kept.value;
    if (!there) return;
    await runTask(`Deleting “${there.title}”`, () => deleteListPage(there));
    if (await getListPage(there.id)) return;
    deck.say(`“${there.title}” is deleted.`);
    await goto('/list-pages');
  }
</script>

<PublishPanel side="post" action={view.blogs.length === 0 ? undefined : action}>
  {#if view.blogs.length === 0}
    <p>No blog is connected yet. <a href="/places">Connect one</a></p>
  {:else}
    <label class="flex flex-col gap-1 font-semibold">
      Blog
      <select class="field font-normal" bind:value={page.placeId} disabled={isThere}>
        {#each view.blogs as blog (blog.id)}<option value={blog.id}>{blog.title}</option>{/each}
      </select>
    </label>
    {#if !mayPublish}
      <p>
        {view.blog?.title ?? 'This blog'} is connected read only.
        <a href="/places">Add a key</a> to publish there.
      </p>
    {/if}
    <label class="flex flex-col gap-1 font-semibold">
      Address <input class="field font-normal" bind:value={page.slug} disabled={isThere} />
    </label>
    <Choice
      legend="Visibility"
      shown="above"
      isStacked
      options={VISIBILITIES}
      bind:value={page.status}
      disabled={(status) => draftOnly && status !== 'draft'}
    />
    <label class="flex items-start gap-2">
      <input type="checkbox" class="mt-0.5" bind:checked={page.isOn} />
      <span>Keep it up to date automatically</span>
    </label>
  {/if}
  {#snippet status()}
    {#if kept.value?.problem}
      <p role="status" class="rounded-base border border-edge p-2">
        {problemTexts[kept.value.problem]}
      </p>
    {/if}
    {#if entry.value && entry.value.state !== 'removed'}
      <DeliveryStatus entry={entry.value} noun="page" onremove={remove} />
    {:else}
      <ConfirmButton
        label="Delete…"
        of={page.title}
        confirm="Delete this list page"
        keep="Keep it"
        onconfirm={remove}
      />
    {/if}
  {/snippet}
</PublishPanel>
