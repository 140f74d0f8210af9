<script lang="ts">
  import { languageOfVoice } from '$lib/core/narration/voiceFile.ts';
  import {
    VOICES,
    voicesFor,
    usualVoice,
    voiceToneSchema,
    type EngineName
  } from '$lib/core/narration/voices.ts';
  import { ownVoices } from '$lib/data/ownVoices.ts';
  import { silentMessage, toneLabels, voiceMessage } from '$lib/ui/boothMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import OwnReading from './OwnReading.svelte';
  import OwnVoices from './OwnVoices.svelte';
  import type { Booth } from './boothState.svelte.ts';
  import type { Preview } from './preview.svelte.ts';

  interface Props {
    booth: Booth;
    preview: Preview;
    onread: (lineId: string) => void;
    onpick: (index: number) => void;
  }
  let { booth, preview, onread, onpick }: Props = $props();
  const own = live(() => ownVoices);
  const narration = $derived(booth.narration);
  const fitting = $derived(voicesFor(narration?.options.language ?? 'en'));
  const others = $derived(VOICES.filter((v) => !fitting.includes(v)));
  const nameOf = (v: { engine: string; voice: string }) => `${v.engine} ${v.voice}`;
  const silent = $derived([...booth.said.silent.values()]);
  const sample = $derived(
    booth.scene?.lines.map((l) => booth.said.speech.get(l.id)).find((key) => key) ?? ''
  );

  function choose(name: string) {
    if (!narration) return;
    const voice = VOICES.find((v) => nameOf(v) === name);
    const file = own.value?.find((v) => nameOf({ engine: 'file', voice: v.id }) === name);
    if (voice) speak(voice.engine, voice.voice, voice.language);
    else if (file) speak('file', file.id, languageOfVoice(file.file));
    else narration.voice = null;
  }

  function speak(engine: EngineName, voice: string, language: string) {
    if (!narration) return;
    const before = narration.voice ?? usualVoice('en');
    if (before) narration.voice = { ...before, engine, voice };
    // Numbers and the like are said in the language of the voice.
    const base = (code: string) => code.split('-')[0];
    if (base(language) !== base(narration.options.language)) narration.options.language = language;
  }
</script>

{#if narration}
  <section aria-labelledby="voice-title" class="flex flex-col gap-2 text-sm">
    <h2 id="voice-title" class="text-base font-semibold">Voice</h2>
    <label class="flex flex-col gap-1">
      <span class="sr-only">Voice</span>
      <select
        class="field"
        value={narration.voice ? nameOf(narration.voice) : ''}
        onchange={(event) => choose(event.currentTarget.value)}
      >
        <option value="">No voice: cards only</option>
        {#if own.value && own.value.length > 0}
          <optgroup label="Your voice files">
            {#each own.value as { id, name } (id)}<option value="file {id}">{name}</option>{/each}
          </optgroup>
        {/if}
        <optgroup label="In the language of the post">
          {#each fitting as voice (nameOf(voice))}<option value={nameOf(voice)}
              >{voiceMessage(voice)}</option
            >{/each}
        </optgroup>
        <optgroup label="Other languages">
          {#each others as voice (nameOf(voice))}<option value={nameOf(voice)}
              >{voiceMessage(voice)}</option
            >{/each}
        </optgroup>
      </select>
    </label>
    {#if fitting.length === 0}
      <p>No voice here speaks the language of this post. You can record it yourself.</p>
    {/if}
    {#if narration.voice}
      {@const voice = narration.voice}
      <label class="grid grid-cols-[5.5rem_1fr] items-center gap-2">
        Sound
        <select
          class="field"
          bind:value={
            () => voice.tone ?? 'plain', (tone) => (voice.tone = voiceToneSchema.parse(tone))
          }
        >
          {#each voiceToneSchema.options as tone (tone)}<option value={tone}
              >{toneLabels[tone]}</option
            >{/each}
        </select>
      </label>
      <label class="grid grid-cols-[5.5rem_1fr_3rem] items-center gap-2">
        Speed
        <input
          type="range"
          min="0.7"
          max="1.5"
          step="0.05"
          value={voice.speed}
          onchange={(event) => (voice.speed = Number(event.currentTarget.value))}
        />
        <span class="figures text-right">{voice.speed.toFixed(2)}×</span>
      </label>
      {#each [['sentencePause', 'After a sentence', 1.5], ['partPause', 'Around headings', 2.5]] as const as [name, label, max] (name)}
        <label class="grid grid-cols-[5.5rem_1fr_3rem] items-center gap-2">
          {label}
          <input
            type="range"
            min="0"
            {max}
            step="0.05"
            value={voice[name]}
            onchange={(event) => (voice[name] = Number(event.currentTarget.value))}
          />
          <span class="figures text-right">{voice[name].toFixed(2)} s</span>
        </label>
      {/each}
      <div class="flex flex-wrap items-center gap-2">
        <button class="plain btn btn-sm" disabled={!sample} onclick={() => preview.say(sample)}
          >Play this scene’s sentence</button
        >
      </div>
      {#if booth.notSaid}
        <ProblemNote problem={booth.notSaid} item="Saying the sentences">
          {#snippet actions()}
            <button class="plain btn btn-sm" onclick={() => booth.sayLines()}>Try again</button>
          {/snippet}
        </ProblemNote>
      {:else if silent.length > 0}
        <p role="alert">
          {plural(silent.length, 'sentence has', 'sentences have')} no voice and will only be shown:
          {silentMessage(silent[0] ?? 'silent')}
        </p>
      {/if}
    {/if}
    <OwnReading {booth} of="all" {onread} {onpick} />
    <OwnVoices
      voices={own.value ?? []}
      onadded={({ id, file }) => speak('file', id, languageOfVoice(file))}
    />
  </section>
{/if}

<style>
  input[type='range'] {
    min-width: 0;
    accent-color: var(--ink);
  }
</style>
