<script lang="ts">
  import { importFont, importPicture } from '$lib/work/ownMedia.ts';
  import StyleFields from './StyleFields.svelte';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const style = $derived(booth.narration?.style);
  let message = $state('');

  async function takeFont(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file || !style) return;
    const { id, problem } = await importFont(file);
    message = problem
      ? `“${file.name}” is no font file that can be read. Take a WOFF2, WOFF, TTF or OTF file. Nothing was changed.`
      : '';
    if (id) style.font = id;
  }

  async function importMark(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file || !style) return;
    const { id, problem } = await importPicture(file);
    message = problem ? `“${file.name}” is no picture that can be read. Nothing was changed.` : '';
    if (id) {
      style.mark = id;
      await booth.drawPictures();
    }
  }
</script>

{#if style}
  <section aria-labelledby="look-title" class="flex flex-col gap-2 text-sm">
    <h2 id="look-title" class="text-base font-semibold">Look</h2>
    <StyleFields bind:style={booth.narration!.style} />
    <div class="flex flex-wrap items-center gap-2">
      <label class="plain btn cursor-pointer btn-sm">
        {style.mark ? 'Another logo' : 'Your logo'}
        <input class="sr-only" type="file" accept="image/*" onchange={importMark} />
      </label>
      {#if style.mark}<button class="bare btn btn-sm" onclick={() => (style.mark = '')}
          >Remove the logo</button
        >{/if}
      <label class="plain btn cursor-pointer btn-sm">
        {style.font ? 'Another typeface' : 'Your typeface'}
        <input class="sr-only" type="file" accept=".woff2,.woff,.ttf,.otf" onchange={takeFont} />
      </label>
      {#if style.font}<button class="bare btn btn-sm" onclick={() => (style.font = '')}
          >Remove the typeface</button
        >{/if}
    </div>
    {#if message}<p role="alert">{message}</p>{/if}
  </section>
{/if}
