<script lang="ts">
  import type { LaneLook } from '$lib/core/lanes/lane.ts';
  import { frameNameSchema, pixelsOf, resolutionSchema } from '$lib/core/narration/frames.ts';
  import { formatSchema } from '$lib/core/narration/look.ts';
  import { languageOfVoice } from '$lib/core/narration/voiceFile.ts';
  import { VOICES, usualVoice } from '$lib/core/narration/voices.ts';
  import { readLookOfBooth } from '$lib/data/narrations.ts';
  import StyleFields from '$lib/ui/booth/StyleFields.svelte';
  import { frameLabels, voiceMessage } from '$lib/ui/boothMessages.ts';
  import { ownVoices } from '$lib/data/ownVoices.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import Choice from '$lib/ui/Choice.svelte';

  let { look = $bindable() }: { look: LaneLook | null } = $props();
  const own = live(() => ownVoices);
  const nameOf = (v: { engine: string; voice: string }) => `${v.engine} ${v.voice}`;

  async function decide(isOwn: boolean) {
    look = isOwn ? await readLookOfBooth() : null;
  }
  function chooseVoice(name: string) {
    const file = own.value?.find((v) => nameOf({ engine: 'file', voice: v.id }) === name);
    const voice =
      VOICES.find((v) => nameOf(v) === name) ??
      (file && {
        engine: 'file' as const,
        voice: file.id,
        language: languageOfVoice(file.file)
      });
    if (!look) return;
    const usual = look.voice ?? usualVoice(voice?.language ?? 'en');
    look.voice = voice && usual ? { ...usual, engine: voice.engine, voice: voice.voice } : null;
  }
</script>

<Choice
  legend="Look and voice"
  shown="above"
  isStacked
  options={[
    [false, 'As in the booth, whatever was chosen there last'],
    [true, 'Of this lane, whatever is chosen in the booth']
  ] as const}
  bind:value={() => look !== null, (isOwn) => void decide(isOwn)}
/>
{#if look}
  <div class="grid gap-2 sm:grid-cols-3">
    <label class="flex flex-col gap-1"
      >Frame
      <select class="field" bind:value={look.frame}>
        {#each frameNameSchema.options as name (name)}<option value={name}
            >{frameLabels[name]}</option
          >{/each}
      </select></label
    >
    <label class="flex flex-col gap-1"
      >Resolution
      <select class="field" bind:value={look.resolution}>
        {#each resolutionSchema.options as name (name)}
          {@const { width, height } = pixelsOf(look.frame, name)}
          <option value={name}>{width} × {height}</option>
        {/each}
      </select></label
    >
    <label class="flex flex-col gap-1"
      >File format
      <select class="field" bind:value={look.format}>
        {#each formatSchema.options as format (format)}<option value={format}
            >{format === 'mp4' ? 'MP4' : 'WebM'}</option
          >{/each}
      </select></label
    >
  </div>
  <StyleFields bind:style={look.style} />
  <label class="flex flex-col gap-1"
    >Voice
    <select
      class="field"
      value={look.voice ? nameOf(look.voice) : ''}
      onchange={(event) => chooseVoice(event.currentTarget.value)}
    >
      <option value="">The usual voice of the post’s language</option>
      {#each own.value ?? [] as { id, name } (id)}<option value="file {id}">{name}</option>{/each}
      {#each VOICES as voice (nameOf(voice))}<option value={nameOf(voice)}
          >{voiceMessage(voice)}</option
        >{/each}
    </select>
  </label>
  {#if look.voice}
    <p class="text-quiet">Posts in other languages are read in the usual voice of theirs.</p>
  {/if}
{/if}
