<script lang="ts">
  import { filmsOf, madeFromFilm, type Film } from '$lib/core/narration/films.ts';
  import { readRender } from '$lib/data/narrations.ts';
  import { mediaProblemMessage } from '$lib/ui/boothMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { Problem } from '$lib/core/model/place.ts';
  import { useFilm } from '$lib/work/films.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const films = $derived(booth.post ? filmsOf(booth.post, booth.blog) : []);
  let chosen = $state('');
  let isMine = $state(false);
  let message = $state('');
  let problem = $state<Problem | null>(null);
  let isBusy = $state(false);
  const film = $derived(films.find((f) => f.url === chosen) ?? films[0]);
  const render = live(() => {
    const id = booth.post?.id;
    return () => (id ? readRender(id) : null);
  });
  const isUsed = $derived(film !== undefined && render.value?.madeFrom === madeFromFilm(film.url));
  function nameOf({ url }: Film): string {
    const name = new URL(url).pathname.split('/').at(-1) ?? url;
    try {
      return decodeURIComponent(name);
    } catch {
      // An address may have any signs after its percent.
      return name;
    }
  }

  async function use() {
    const { post } = booth;
    if (!post || !film) return;
    isBusy = true;
    const fetched = await attempt(() => useFilm(film, post));
    isBusy = false;
    problem = fetched.problem?.kind === 'stopped' ? null : fetched.problem;
    message = fetched.value?.problem
      ? mediaProblemMessage(fetched.value.problem, nameOf(film))
      : '';
  }
</script>

{#if film && booth.post}
  <div class="flex flex-col gap-2 border-b border-line pb-3">
    <p class="font-semibold">
      This post has {films.length === 1
        ? 'a video file'
        : plural(films.length, 'video file', 'video files')} of its own.
    </p>
    {#if films.length > 1}
      <fieldset class="flex flex-col gap-1">
        <legend class="sr-only">Which file</legend>
        {#each films as one (one.url)}
          <label class="flex items-center gap-2">
            <input
              type="radio"
              name="film"
              checked={one === film}
              onchange={() => {
                chosen = one.url;
                isMine = false;
              }}
            />
            <span class="min-w-0 truncate" title={one.url}>{nameOf(one)}</span>
          </label>
        {/each}
      </fieldset>
    {:else}
      <p class="truncate" title={film.url}>{nameOf(film)}</p>
    {/if}
    {#if !film.isAtBlog}
      <label class="flex items-start gap-2">
        <input type="checkbox" class="mt-1" bind:checked={isMine} />
        <span>It lies at {new URL(film.url).host}. The video is mine, and I may upload it.</span>
      </label>
    {/if}
    {#if isUsed}
      <p role="status">It is what goes to your channels: no video is rendered.</p>
    {:else}
      <button
        class="plain btn self-start btn-sm"
        disabled={isBusy || (!film.isAtBlog && !isMine)}
        onclick={use}>{isBusy ? 'Fetching…' : 'Use this file'}</button
      >
    {/if}
    {#if problem}<ProblemNote {problem} item={nameOf(film)} />{/if}
    {#if message}<p role="alert">{message}</p>{/if}
  </div>
{/if}
