<script lang="ts">
  import {
    checkStyle,
    styleNameSchema,
    typefaceSchema,
    type Style
  } from '$lib/core/narration/styles.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { styleLabels, typefaceLabels } from '$lib/ui/boothMessages.ts';

  let { style = $bindable() }: { style: Style } = $props();
</script>

<div class="grid grid-cols-2 gap-2">
  <label class="flex flex-col gap-1"
    >Cards
    <select class="field" bind:value={style.name}>
      {#each styleNameSchema.options as name (name)}<option value={name}>{styleLabels[name]}</option
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
<Choice
  legend="Motion"
  options={[
    ['moving', 'Words and pictures move in'],
    ['calm', 'Calm, nothing moves']
  ]}
  bind:value={style.motion}
/>
<label class="flex items-center gap-1.5"
  ><input type="checkbox" bind:checked={style.wordLights} /> Light up words as they are said</label
>
<div class="grid grid-cols-2 gap-2">
  <label class="flex flex-col gap-1"
    >Speaker’s name
    <input class="field" bind:value={style.lowerThird.name} placeholder="Not shown" />
  </label>
  <label class="flex flex-col gap-1"
    >Line under it
    <input class="field" bind:value={style.lowerThird.line} disabled={!style.lowerThird.name} />
  </label>
</div>
{#each checkStyle(style) as problem (problem.kind)}
  <p role="alert">
    The accent is hard to see on this ground: {problem.ratio.toFixed(1)} to 1, and 3 to 1 is needed. Text
    is always dark or light enough.
  </p>
{/each}
