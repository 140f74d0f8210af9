<script lang="ts">
  import { readTimestamp } from '$lib/core/captions/timestamp.ts';
  import { timeCode } from '$lib/core/chapters/chapter.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { typed } from '$lib/ui/typed.svelte.ts';
  import { untrack } from 'svelte';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const form = typed(() => `pictures/${desk.video?.id ?? ''}`, { url: '', alt: '', time: '' });
  const { pictures } = untrack(() => desk);
  let isOpen = $state(pictures.length > 0 || form.fields.url !== '');

  function add(event: SubmitEvent) {
    event.preventDefault();
    const { url, alt, time } = form.fields;
    const at = time.trim() ? readTimestamp(time) : undefined;
    if (!/^https?:\/\//.test(url) || !URL.canParse(url)) {
      return deck.say('A picture needs a whole address, beginning with https://.');
    }
    if (at === null) return deck.say(`“${time}” is no time. Write it as 1:23.`);
    const pictures = [
      ...desk.pictures,
      { url, alt: alt.trim(), ...(at !== undefined ? { at } : {}) }
    ].sort((a, b) => (a.at ?? Infinity) - (b.at ?? Infinity));
    desk.autosave.change(() => (desk.pictures = pictures));
    form.clear();
  }
</script>

<details class="text-sm" bind:open={isOpen}>
  <summary class="font-semibold">Pictures of the steps</summary>
  <div class="flex flex-col gap-2 py-2">
    {#each desk.pictures as picture, i (i)}
      <p class="flex items-center gap-2">
        <span class="times">{picture.at === undefined ? '–' : timeCode(picture.at)}</span>
        <span class="min-w-0 flex-1 truncate" title={picture.url}
          >{picture.alt || 'no text alternative'}</span
        >
        <button
          class="bare btn btn-sm"
          onclick={() => (desk.pictures = desk.pictures.filter((_, k) => k !== i))}>Remove</button
        >
      </p>
    {/each}
    <form class="flex flex-col gap-2" onsubmit={add}>
      <label class="flex flex-col gap-1"
        >Address of a picture<input
          class="field"
          bind:value={form.fields.url}
          placeholder="https://…"
        /></label
      >
      <label class="flex flex-col gap-1"
        >What it shows<input class="field" bind:value={form.fields.alt} /></label
      >
      <label class="flex flex-col gap-1"
        >Time in the video<input
          class="field times"
          bind:value={form.fields.time}
          placeholder="1:23, or nothing"
        /></label
      >
      <button
        class="plain btn self-start btn-sm"
        disabled={!form.fields.url.trim() || !form.fields.alt.trim()}>Put it in the article</button
      >
    </form>
  </div>
</details>
