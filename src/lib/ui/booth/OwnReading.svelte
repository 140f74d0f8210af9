<script lang="ts">
  import Mic from '@lucide/svelte/icons/mic';
  import { mediaProblemMessage } from '$lib/ui/boothMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { readRecording } from '$lib/work/takes.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Booth } from './boothState.svelte.ts';

  interface Props {
    booth: Booth;
    /** The scenes that are read: all of them, or the one that is shown. */
    of: 'all' | 'scene';
    /** Opens the script for reading, at a line. */
    onread: (lineId: string) => void;
    /** Shows a scene. */
    onpick?: (index: number) => void;
  }
  let { booth, of, onread, onpick }: Props = $props();
  let message = $state('');
  let isBusy = $state(false);
  let doubtful = $state<string[]>([]);
  const scenes = $derived(
    of === 'all' ? (booth.narration?.scenes ?? []) : booth.scene ? [booth.scene] : []
  );
  const lines = $derived(
    scenes.flatMap((s) => (s.recording ? [] : s.lines)).filter((l) => l.spoken)
  );
  const read = $derived(lines.filter((l) => l.take));
  const stale = $derived(read.filter((l) => l.take?.spoken !== l.spoken));

  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    const language = booth.narration?.options.language ?? '';
    if (!file) return;
    isBusy = true;
    const wanted = $state.snapshot(lines);
    const { value } = await attempt(() =>
      readRecording(file, wanted, { language, isDenoised: true })
    );
    isBusy = false;
    if (!value) return;
    if (!value.takes) {
      message = mediaProblemMessage(value.problem, file.name);
      return;
    }
    booth.setTakes(value.takes);
    doubtful = value.doubtful;
    message =
      value.unheard.length > 0
        ? `${plural(value.unheard.length, 'sentence was', 'sentences were')} not heard in it and ${value.unheard.length === 1 ? 'is' : 'are'} said by the voice.`
        : '';
  }
  const sceneOf = (id: string) =>
    booth.narration?.scenes.findIndex((s) => s.lines.some((l) => l.id === id)) ?? -1;
  const useVoice = () => booth.setTakes(new Map(read.map((l) => [l.id, undefined])));
</script>

{#if lines.length > 0}
  <div class="flex flex-col gap-2 text-sm">
    <div class="flex flex-wrap items-center gap-2">
      <button
        class="plain btn btn-sm"
        disabled={isBusy}
        onclick={() => onread((lines.find((l) => !l.take) ?? lines[0])?.id ?? '')}
        ><Mic aria-hidden="true" />Read it yourself</button
      >
      <label class="plain btn cursor-pointer btn-sm" aria-disabled={isBusy}>
        {of === 'all' ? 'Import a recording of all' : 'Import a recording'}
        <input
          class="sr-only"
          type="file"
          accept="audio/*,video/*"
          disabled={isBusy}
          onchange={take}
        />
      </label>
    </div>
    {#if isBusy}<p role="status">Finding the sentences. The deck shows the progress.</p>{/if}
    {#if read.length > 0}
      <p>
        {read.length === lines.length
          ? 'Your own recording plays instead of the voice.'
          : `${read.length} of ${lines.length} sentences are read by you.`}
        <button class="bare btn btn-sm" onclick={useVoice}>Use the voice again</button>
      </p>
    {/if}
    {#if stale.length > 0}
      <p role="status">
        {plural(stale.length, 'sentence was', 'sentences were')} changed after you read {stale.length ===
        1
          ? 'it'
          : 'them'}. Read {stale.length === 1 ? 'it' : 'them'} again.
      </p>
    {/if}
    {#if doubtful.length > 0}
      <div role="status">
        <p>Listen to these: they may have been read in other words, or with something between.</p>
        <ul class="list-disc pl-5">
          {#each lines.filter((l) => doubtful.includes(l.id)) as line (line.id)}
            <li>
              {#if onpick}
                <button class="text-left underline" onclick={() => onpick(sceneOf(line.id))}
                  >{line.text}</button
                >
              {:else}{line.text}{/if}
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    {#if message}<p role="alert">{message}</p>{/if}
  </div>
{/if}
