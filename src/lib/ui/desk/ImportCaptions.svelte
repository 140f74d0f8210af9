<script lang="ts">
  import { fitToLength } from '$lib/core/captions/plain.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { plural } from '$lib/ui/messages.ts';
  import { talkWorker } from '$lib/workers/talk.ts';
  import { typed } from '$lib/ui/typed.svelte.ts';
  import { untrack } from 'svelte';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const form = typed(() => `captions/${desk.video?.id ?? ''}`, { text: '' });
  let fault = $state('');
  const isByHand = $derived(desk.details?.isByHand ?? false);
  let isOpen = $state(untrack(() => (desk.details?.cues.length ?? 0) === 0));
  /** Captions of a day's talk are far below this. */
  const MAX_BYTES = 8_000_000;

  async function take(source: string) {
    fault = '';
    const read = await talkWorker().readFile(source);
    if ('message' in read) {
      fault = `Line ${read.line}: ${read.message}`;
      return;
    }
    await desk.importCaptions(
      read.isTimed ? read.cues : fitToLength(read.cues, desk.video?.duration ?? 0)
    );
    form.clear();
    deck.say(
      `${plural(read.cues.length, 'cue', 'cues')} imported${read.isTimed ? '' : '; they have no times, so they are spread over the video'}.`
    );
  }

  async function pick(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    if (file.size > MAX_BYTES) {
      fault = `“${file.name}” is larger than 8 MB, so it can hardly be captions.`;
      return;
    }
    await take(await file.text());
  }
</script>

<details class="text-sm" bind:open={isOpen}>
  <summary class="font-semibold">Import captions</summary>
  <div class="flex flex-col gap-2 py-2">
    <label class="flex flex-col gap-1">
      A file: WebVTT, SRT or plain text
      <input
        type="file"
        accept=".vtt,.srt,.txt,text/vtt,text/plain"
        onchange={pick}
        class="text-quiet file:mr-2 file:rounded-base file:border file:border-edge file:bg-sheet file:px-2 file:py-1 file:text-ink"
      />
    </label>
    <label class="flex flex-col gap-1">
      Or paste them
      <textarea class="field times" rows="4" bind:value={form.fields.text}></textarea>
    </label>
    {#if fault}<p role="alert" class="text-error-700 dark:text-error-300">
        {fault} Nothing was taken.
      </p>{/if}
    <div class="flex flex-wrap gap-2">
      <button
        class="plain btn btn-sm"
        disabled={!form.fields.text.trim()}
        onclick={() => take(form.fields.text)}>Use pasted text</button
      >
      {#if isByHand}
        <button class="bare btn btn-sm" onclick={() => desk.dropCaptions()}
          >Use the channel’s captions</button
        >
      {/if}
    </div>
  </div>
</details>
