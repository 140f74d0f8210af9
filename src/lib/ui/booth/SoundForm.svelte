<script lang="ts">
  import { bedNameSchema, type BedName } from '$lib/core/audio/synth/beds.ts';
  import { getMediaOf } from '$lib/data/media.ts';
  import { bedLabels, mediaProblemMessage, runningTime } from '$lib/ui/boothMessages.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { importClip, importSound, useBed } from '$lib/work/ownMedia.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const narration = $derived(booth.narration);
  let message = $state('');
  const slots = [
    ['before', 'Clip in front'],
    ['after', 'Clip at the end'],
    ['music', 'Music beneath']
  ] as const;
  const kept = live(() => {
    const names = slots.map(([slot]) => narration?.[slot] ?? '');
    return async () => {
      const found = await getMediaOf(names);
      return found.map((m) => (m ? { name: m.name, seconds: m.seconds ?? 0 } : null));
    };
  });

  async function takeBed(bed: BedName) {
    const { value } = await attempt(() => useBed(bed, bedLabels[bed]));
    if (value && narration) narration.music = value;
  }

  async function bring(
    slot: (typeof slots)[number][0],
    event: Event & { currentTarget: HTMLInputElement }
  ) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file || !narration) return;
    const { value } = await attempt(() =>
      slot === 'music' ? importSound(file, file.name) : importClip(file)
    );
    message = value?.problem ? mediaProblemMessage(value.problem, file.name) : '';
    if (value?.id) narration[slot] = value.id;
  }
</script>

{#if narration}
  <section aria-labelledby="sound-title" class="flex flex-col gap-2 text-sm">
    <h2 id="sound-title" class="text-base font-semibold">Clips, music and sounds</h2>
    {#each slots as [slot, label], i (slot)}
      {@const media = kept.value?.[i]}
      <div class="flex flex-wrap items-center gap-2">
        <span class="w-28">{label}</span>
        {#if narration[slot] && media}
          <span class="min-w-0 flex-1 truncate" title={media.name}
            >{media.name}, {runningTime(media.seconds)}</span
          >
          <button class="bare btn btn-sm" onclick={() => (narration[slot] = '')}>Remove</button>
        {:else}
          {#if slot === 'music'}
            {#each bedNameSchema.options as bed (bed)}
              <button class="plain btn btn-sm" onclick={() => takeBed(bed)}
                >{bedLabels[bed]}<span class="sr-only"> music</span></button
              >
            {/each}
          {/if}
          <label class="plain btn cursor-pointer btn-sm">
            Choose a file<span class="sr-only"> for: {label}</span>
            <input
              class="sr-only"
              type="file"
              accept={slot === 'music' ? 'audio/*,video/*' : 'video/*'}
              onchange={(event) => bring(slot, event)}
            />
          </label>
        {/if}
      </div>
    {/each}
    {#if narration.music}
      <label class="grid grid-cols-[7rem_1fr_3.5rem] items-center gap-2">
        Under the voice
        <input type="range" min="-36" max="-10" step="1" bind:value={narration.musicLevel} />
        <span class="figures text-right">{narration.musicLevel} dB</span>
      </label>
      <p class="text-quiet">It is louder where nobody speaks.</p>
    {/if}
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" bind:checked={narration.sounds} /> Short sounds as scenes change</label
    >
    {#if message}<p role="alert">{message}</p>{/if}
  </section>
{/if}

<style>
  input[type='range'] {
    min-width: 0;
    accent-color: var(--ink);
  }
</style>
