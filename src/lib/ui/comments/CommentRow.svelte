<script lang="ts">
  import { safeHtml } from '$lib/ui/desk/safeHtml.ts';
  import { formatDate } from '$lib/ui/messages.ts';
  import type { CommentsState, ShownComment } from './commentsState.svelte.ts';

  interface Props {
    view: CommentsState;
    comment: ShownComment;
    /** Whether its post can be changed from here. */
    canShow: boolean;
    language: string;
  }
  let { view, comment, canShow, language }: Props = $props();
  const author = $derived(comment.author || 'Somebody');
</script>

<li
  class="grid grid-cols-[1.5rem_minmax(0,1fr)] gap-x-2 border-b border-line py-1.5 sm:grid-cols-[1.5rem_minmax(0,1fr)_auto] {comment.answersTo
    ? 'pl-6'
    : ''}"
>
  <input
    type="checkbox"
    class="mt-1 size-4"
    checked={view.chosen.has(comment.id)}
    onchange={() => view.toggle(comment.id)}
    aria-label="Select the comment by {author}"
  />
  <div class="min-w-0">
    <p class="text-sm">
      <span class="font-semibold">{author}</span>
      <span class="text-quiet">
        {#if comment.answersTo}answers {comment.answersTo} ·{/if}
        <a class="underline" href={comment.url} target="_blank" rel="noreferrer"
          >{formatDate(comment.published)}</a
        >
        {#if comment.hasLinks}· has links{/if}
      </span>
    </p>
    <div class="reading text-sm wrap-anywhere" lang={language || undefined}>
      <!-- eslint-disable-next-line svelte/no-at-html-tags -->
      {@html safeHtml(comment.html)}
    </div>
  </div>
  <div class="col-start-2 flex flex-wrap items-start gap-1 sm:col-start-3 sm:justify-end">
    {#if comment.choice !== 'bring'}
      <button
        class="plain btn btn-sm"
        disabled={!canShow}
        onclick={() => view.decide([comment], 'bring')}
        aria-label="Show the comment by {author} in the post">Show in post</button
      >
    {/if}
    {#if comment.choice !== 'leave'}
      <button
        class="bare btn btn-sm"
        onclick={() => view.decide([comment], 'leave')}
        aria-label={comment.choice === 'bring'
          ? `Remove the comment by ${author} from the post`
          : `Leave out the comment by ${author}`}
        >{comment.choice === 'bring' ? 'Remove from post' : 'Leave out'}</button
      >
    {/if}
  </div>
</li>
