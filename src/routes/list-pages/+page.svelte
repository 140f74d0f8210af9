<script lang="ts">
  import { goto } from '$app/navigation';
  import { v4 } from 'uuid';
  import { newListPage } from '$lib/core/listPages/listPage.ts';
  import { canPublish } from '$lib/core/model/place.ts';
  import { addListPage, allListPages } from '$lib/data/listPages.ts';
  import { placesOfKind, placeTitles } from '$lib/data/places.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import { problemTexts } from '$lib/ui/listPages/listPageMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';

  const pages = live(() => allListPages);
  const titles = live(() => placeTitles);

  async function add() {
    const blogs = await placesOfKind('blog');
    const blog = blogs.find(canPublish) ?? blogs[0];
    const page = newListPage({ id: v4(), placeId: blog?.id ?? '' }, new Date().toISOString());
    await addListPage(page);
    await goto(`/list-pages/${page.id}`);
  }
</script>

<svelte:head><title>List pages · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-4xl flex-col gap-3 px-3 py-3">
    <header class="flex flex-wrap items-center gap-3">
      <h1 class="text-lg font-semibold">List pages</h1>
      <button class="strong btn btn-sm" onclick={add}>New list page</button>
      <a class="bare ml-auto btn btn-sm" href="/">Back to In step</a>
    </header>
    <p class="text-sm text-quiet">
      A list page is a post at your blog that lists your videos or posts, all of them or by tag or
      playlist. It is updated automatically after each refresh.
    </p>
    {#if pages.value?.length === 0}
      <EmptyState title="No list pages yet">
        <p>Begin with all videos, newest first, and change what you like.</p>
        {#snippet actions()}
          <button class="strong btn btn-sm" onclick={add}>Create the first list page</button>
        {/snippet}
      </EmptyState>
    {/if}
    <ul class="flex flex-col" aria-label="List pages">
      {#each pages.value ?? [] as page (page.id)}
        <li class="flex flex-col gap-0.5 border-b border-line py-2">
          <a class="font-semibold underline" href="/list-pages/{page.id}"
            >{page.title.trim() || 'Untitled'}</a
          >
          <p class="text-sm text-quiet">
            {titles.value?.get(page.placeId) ?? 'No blog'} ·
            {#if page.key === ''}not published yet{:else}{plural(
                page.sentItems,
                'item',
                'items'
              )}{page.isOn && !page.problem
                ? ', updated automatically'
                : ', not updated automatically'}{/if}
          </p>
          {#if page.problem}<p class="text-sm">{problemTexts[page.problem]}</p>{/if}
        </li>
      {/each}
    </ul>
  </div>
</div>
