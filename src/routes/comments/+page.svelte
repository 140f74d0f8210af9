<script lang="ts">
  import Choice from '$lib/ui/Choice.svelte';
  import CommentRow from '$lib/ui/comments/CommentRow.svelte';
  import { CommentsState } from '$lib/ui/comments/commentsState.svelte.ts';
  import EmptyState from '$lib/ui/EmptyState.svelte';

  const view = new CommentsState();
  /** Conversations that are drawn at first, and more each time. */
  const MORE = 30;
  let most = $state(MORE);
  const options = $derived([
    ['open', `New (${view.counts.open})`],
    ['bring', `Shown in posts (${view.counts.bring})`],
    ['leave', `Left out (${view.counts.leave})`]
  ] as const);
  const noneTitles = {
    open: 'No new comments',
    bring: 'No comments are shown in posts',
    leave: 'No comments are left out'
  };
</script>

<svelte:head><title>Comments · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-4xl flex-col gap-3 px-3 py-3">
    <header class="flex flex-wrap items-center gap-x-3 gap-y-1">
      <h1 class="text-lg font-semibold">Comments</h1>
      {#if view.isOn}
        <Choice legend="Show comments" {options} bind:value={view.shown} />
      {/if}
      <span class="ml-auto flex gap-2">
        {#if view.isOn}
          <button class="plain btn btn-sm" onclick={() => view.read()}>Refresh comments</button>
        {/if}
        <a class="bare btn btn-sm" href="/">Back to In step</a>
      </span>
    </header>
    {#if !view.isReady}
      <p class="text-quiet" role="status">Reading…</p>
    {:else if !view.isOn}
      <EmptyState title="Comments are not shown in posts">
        <p>
          Posts can show the comments on their videos, with author and a link back. Choose which for
          your channel in Places.
        </p>
        {#snippet actions()}<a class="plain btn btn-sm" href="/places">Go to Places</a>{/snippet}
      </EmptyState>
    {:else if view.conversations.length === 0}
      <EmptyState title={noneTitles[view.shown]}>
        <p>Comments on videos that have a post are read with the channel and listed here.</p>
      </EmptyState>
    {:else}
      <div class="flex flex-wrap items-center gap-3 text-sm">
        <label class="flex items-center gap-2">
          <input
            type="checkbox"
            class="size-4"
            checked={view.areAllPicked}
            onchange={() => view.toggleAll()}
          />
          Select all
        </label>
        {#if view.picked.length > 0}
          {#if view.shown !== 'bring'}
            <button class="strong btn btn-sm" onclick={() => view.decide(view.picked, 'bring')}
              >Show {view.picked.length} in posts</button
            >
          {/if}
          {#if view.shown !== 'leave'}
            <button class="plain btn btn-sm" onclick={() => view.decide(view.picked, 'leave')}
              >{view.shown === 'bring'
                ? `Remove ${view.picked.length} from posts`
                : `Leave out ${view.picked.length}`}</button
            >
          {/if}
        {/if}
      </div>
      {#each view.conversations.slice(0, most) as { video, post, canShow, comments } (video.id)}
        <section aria-label="Comments on {video.title}">
          <h2 class="border-l-4 border-video pl-2 font-semibold">{video.title}</h2>
          <p class="border-l-4 border-post pl-2 text-sm text-quiet">
            Post: <a class="underline" href={post.url} target="_blank" rel="noreferrer"
              >{post.title}</a
            >{#if !canShow}. Its blog is connected read only.{/if}
          </p>
          <ul aria-label="Comments">
            {#each comments as comment (comment.id)}
              <CommentRow {view} {comment} {canShow} language={video.language} />
            {/each}
          </ul>
        </section>
      {/each}
      {#if view.conversations.length > most}
        <button class="plain btn self-start btn-sm" onclick={() => (most += MORE)}>Show more</button
        >
      {/if}
    {/if}
  </div>
</div>
