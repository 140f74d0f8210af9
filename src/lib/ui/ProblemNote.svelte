<script lang="ts">
  import type { Snippet } from 'svelte';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import type { Problem } from '$lib/core/model/place.ts';
  import { problemDetail, problemMessage } from './messages.ts';

  let {
    problem,
    item = '',
    actions
  }: { problem: Problem; item?: string; actions?: Snippet } = $props();
  const words = $derived(problemMessage(problem));
  const detail = $derived(problemDetail(problem));
</script>

<div
  role="alert"
  class="flex gap-3 rounded-container border border-l-4 border-error-500 bg-sheet p-3 text-sm"
>
  <TriangleAlert
    class="mt-0.5 size-4 shrink-0 text-error-600 dark:text-error-400"
    aria-hidden="true"
  />
  <div class="flex min-w-0 flex-col gap-1">
    <p class="font-semibold">{item ? `${item}: ` : ''}{words.what}</p>
    <p>{words.todo}</p>
    {#if detail || problem.url}
      <p class="wrap-anywhere text-quiet">
        {detail}
        {#if problem.url}<span class="figures break-all">{problem.url}</span>{/if}
      </p>
    {/if}
    {#if actions}<div class="flex flex-wrap gap-2 pt-1">{@render actions()}</div>{/if}
  </div>
</div>
