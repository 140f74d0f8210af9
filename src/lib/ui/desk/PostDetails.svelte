<script lang="ts">
  import { withoutFields } from '$lib/core/article/template/fill.ts';
  import { largestPicture } from '$lib/core/model/item.ts';
  import type { Desk } from './deskState.svelte.ts';
  import Names from './Names.svelte';
  import TemplateField from './TemplateField.svelte';

  let { desk }: { desk: Desk } = $props();
  const picture = $derived(desk.video && largestPicture(desk.video.pictures));
</script>

<section aria-labelledby="details-title" class="flex flex-col gap-3">
  <h2 id="details-title" class="font-semibold">About the post</h2>
  <TemplateField
    label="Address"
    bind:value={desk.template.slug}
    fields={desk.fields}
    result={desk.post?.slug}
    placeholder="From the title"
  />
  <Names
    label="Categories"
    value={desk.template.categories}
    onchange={(value) => (desk.template.categories = value)}
  />
  <Names
    label="Tags"
    value={desk.template.tags}
    onchange={(value) => (desk.template.tags = value)}
  />
  <TemplateField
    label="Excerpt"
    bind:value={desk.template.excerpt}
    fields={desk.fields}
    result={desk.post?.excerpt}
    rows={2}
  />
  {#if desk.extracted?.excerpt && desk.post?.excerpt !== desk.extracted.excerpt}
    <div class="-mt-2 flex flex-col items-start gap-1 text-sm">
      <p class="text-quiet">From the talk: {desk.extracted.excerpt}</p>
      <button
        class="plain btn btn-sm"
        onclick={() => (desk.template.excerpt = withoutFields(desk.extracted?.excerpt ?? ''))}
        >Use this excerpt</button
      >
    </div>
  {/if}
  <TemplateField
    label="Author"
    bind:value={desk.template.author}
    fields={desk.fields}
    result={desk.post?.author}
  />
  <div class="grid grid-cols-2 gap-3">
    <label class="flex flex-col gap-1 text-sm font-semibold">
      Date
      <select class="field font-normal" bind:value={desk.template.date}>
        <option value="now">When published</option>
        <option value="video">That of the video</option>
      </select>
    </label>
    <label class="flex flex-col gap-1 text-sm font-semibold">
      Comments
      <select class="field font-normal" bind:value={desk.template.comments}>
        <option value="open">Open</option>
        <option value="closed">Closed</option>
      </select>
    </label>
  </div>
  {#if picture}
    <div class="flex flex-col gap-1 text-sm">
      <label class="flex flex-col gap-1 font-semibold">
        Featured picture
        <select class="field font-normal" bind:value={desk.template.picture}>
          <option value="largest">The largest of {desk.video?.pictures.length}</option>
          <option value="none">None</option>
        </select>
      </label>
      {#if desk.template.picture === 'largest'}
        <img
          src={picture.url}
          alt=""
          class="mt-1 max-h-32 self-start rounded-base"
          loading="lazy"
        />
        <p class="figures text-quiet">{picture.width ?? '?'} × {picture.height ?? '?'}</p>
      {/if}
    </div>
  {/if}
</section>
