<script lang="ts">
  import { checkStyle, styleNameSchema, typefaceSchema } from '$lib/core/narration/styles.ts';
  import { styleLabels, typefaceLabels } from '$lib/ui/boothMessages.ts';
  import { importPicture } from '$lib/work/ownMedia.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const style = $derived(booth.narration?.style);
  const problems = $derived(style ? checkStyle(style) : []);
  let message = $state('');

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
    <div class="grid grid-cols-2 gap-2">
      <label class="flex flex-col gap-1"
        >Cards
        <select class="field" bind:value={style.name}>
          {#each styleNameSchema.options as name (name)}<option value={name}
              >{styleLabels[name]}</option
            >{/each}
        </select>
      </label>
      <label class="flex flex-col gap-1"
        >Typeface
        <select class="field" bind:value={style.typeface}>
          {#each typefaceSchema.options as face (face)}<option value={face}
              >{typefaceLabels[face]}</option
            >{/each}
        </select>
      </label>
      <label class="flex items-center gap-2"
        ><input type="color" class="h-8 w-12" bind:value={style.ground} /> Ground</label
      >
      <label class="flex items-center gap-2"
        ><input type="color" class="h-8 w-12" bind:value={style.accent} /> Accent</label
      >
    </div>
    {#each problems as problem (problem.kind)}
      <p role="alert">
        The accent is hard to see on this ground: {problem.ratio.toFixed(1)} to 1, and 3 to 1 is needed.
        Text is always dark or light enough.
      </p>
    {/each}
    <div class="flex flex-wrap items-center gap-2">
      <label class="plain btn cursor-pointer btn-sm">
        {style.mark ? 'Another logo' : 'Your logo'}
        <input class="sr-only" type="file" accept="image/*" onchange={importMark} />
      </label>
      {#if style.mark}<button class="bare btn btn-sm" onclick={() => (style.mark = '')}
          >Remove the logo</button
        >{/if}
    </div>
    {#if message}<p role="alert">{message}</p>{/if}
  </section>
{/if}
