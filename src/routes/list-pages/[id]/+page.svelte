<script lang="ts">
  import { page as route } from '$app/state';
  import SafeHtml from '$lib/ui/desk/SafeHtml.svelte';
  import EmptyState from '$lib/ui/EmptyState.svelte';
  import ListPageForm from '$lib/ui/listPages/ListPageForm.svelte';
  import { ListPageState } from '$lib/ui/listPages/listPageState.svelte.ts';
  import PublishListPage from '$lib/ui/listPages/PublishListPage.svelte';
  import UndoButtons from '$lib/ui/UndoButtons.svelte';
  import UnsavedNote from '$lib/ui/UnsavedNote.svelte';

  const view = new ListPageState();
  $effect(() => void view.open(route.params.id ?? ''));
  view.follow();
  const title = $derived(view.page?.title.trim() || 'Untitled');
</script>

<svelte:head><title>{title} · Swift Twin</title></svelte:head>

{#if view.isMissing}
  <EmptyState title="This list page is not here">
    <p>It may have been deleted.</p>
    {#snippet actions()}<a class="plain btn btn-sm" href="/list-pages">All list pages</a>{/snippet}
  </EmptyState>
{:else if view.page}
  <div class="h-full overflow-y-auto">
    <div class="mx-auto flex max-w-7xl flex-col gap-3 px-3 py-3 max-lg:pb-20">
      <header class="flex flex-wrap items-center gap-3">
        <a href="/list-pages" class="text-sm underline">List pages</a>
        <h1 class="line-clamp-2 min-w-0 flex-1 text-lg leading-tight font-semibold">{title}</h1>
        <UndoButtons autosave={view.autosave} />
      </header>
      <UnsavedNote autosave={view.autosave} />
      <div class="grid items-start gap-4 lg:grid-cols-[20rem_minmax(0,1fr)_18rem]">
        <ListPageForm {view} bind:page={view.page} />
        <section aria-labelledby="preview" class="min-w-0">
          <h2 id="preview" class="pb-1 font-semibold">Preview</h2>
          {#if view.made && view.made.items === 0}
            <EmptyState title="Nothing to list">
              <p>No public {view.page.lists === 'videos' ? 'video' : 'post'} is like that.</p>
            </EmptyState>
          {:else if view.made}
            <div class="rounded-container border border-line bg-sheet p-4">
              <SafeHtml
                html={view.made.payload.html}
                label="Preview of {title}"
                language={view.page.language}
                isTall
              />
            </div>
          {:else}
            <p class="text-quiet" role="status">Making the list…</p>
          {/if}
        </section>
        <PublishListPage {view} bind:page={view.page} />
      </div>
    </div>
  </div>
{/if}
