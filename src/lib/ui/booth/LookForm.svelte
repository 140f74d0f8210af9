<script lang="ts">
  import { checkStyle, styleNameSchema, typefaceSchema } from '$lib/core/narration/styles.ts';
  import { styleWords, typefaceWords } from '$lib/ui/boothWords.ts';
  import { bringPicture } from '$lib/work/ownMedia.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const style = $derived(booth.narration?.style);
  const problems = $derived(style ? checkStyle(style) : []);
  let message = $state('');

  async function bringMark(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file || !style) return;
    const { id, problem } = await bringPicture(file);
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
              >{styleWords[name]}</option
            >{/each}
        </select>
      </label>
      <label class="flex flex-col gap-1"
        >Typeface
        <select class="field" bind:value={style.typeface}>
          {#each typefaceSchema.options as face (face)}<option value={face}
              >{typefaceWords[face]}</option
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
        {style.mark ? 'Another mark' : 'Your mark'}
        <input class="sr-only" type="file" accept="image/*" onchange={bringMark} />
      </label>
      {#if style.mark}<button class="bare btn btn-sm" onclick={() => (style.mark = '')}
          >Without a mark</button
        >{/if}
    </div>
    {#if message}<p role="alert">{message}</p>{/if}
  </section>
{/if}
