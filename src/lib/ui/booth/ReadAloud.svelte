<script lang="ts">
  import Mic from '@lucide/svelte/icons/mic';
  import Square from '@lucide/svelte/icons/square';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import type { Booth } from './boothState.svelte.ts';
  import type { Preview } from './preview.svelte.ts';
  import { Reading } from './reading.svelte.ts';

  interface Props {
    booth: Booth;
    preview: Preview;
    /** The line to begin with, by id. */
    from: string;
    onclose: () => void;
  }
  let { booth, preview, from, onclose }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  // svelte-ignore state_referenced_locally
  const reading = new Reading(booth);
  const { microphone } = reading;
  const { lines, line, at, isAtEnd, pending, readCount } = $derived(reading);

  $effect(() => {
    dialog?.showModal();
    preview.pause();
    reading.at = Math.max(
      0,
      reading.lines.findIndex((l) => l.id === from)
    );
    return () => reading.close();
  });

  function onkeydown(event: KeyboardEvent) {
    // A button that has the focus answers to the space bar itself.
    const isOnControl = event.target instanceof Element && event.target.closest('button, input');
    if (event.key === ' ' && isOnControl) return;
    const act = {
      ' ': () => reading.next(),
      ArrowRight: () => reading.next(),
      ArrowLeft: () => reading.goTo(at - 1),
      Backspace: () => reading.again()
    }[event.key];
    if (!act || (!microphone.isOn && event.key === ' ')) return;
    event.preventDefault();
    act();
  }
  /** Whatever was pressed last, the space bar goes on from there. */
  function press(act: () => void) {
    act();
    dialog?.focus();
  }
  async function toggle() {
    if (microphone.isOn) microphone.stop();
    else {
      await reading.start();
      dialog?.focus();
    }
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  {onkeydown}
  tabindex="-1"
  aria-labelledby="read-title"
  class="m-auto h-[min(44rem,calc(100vh-2rem))] w-[60rem] max-w-[calc(100vw-1rem)] rounded-container border border-edge bg-sheet p-0 text-ink shadow-2xl outline-none backdrop:bg-black/60"
>
  <div class="flex h-full flex-col gap-3 p-4">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <h2 id="read-title" class="text-base font-semibold">Read it yourself</h2>
      <p class="figures">
        {#if isAtEnd}All {lines.length} sentences{:else}Sentence {at + 1} of {lines.length}{/if},
        {readCount} read
      </p>
      {#if pending > 0}<p role="status">Saving {pending}…</p>{/if}
      <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
    </header>
    <div class="flex min-h-0 flex-1 flex-col justify-center gap-6 overflow-y-auto">
      {#if isAtEnd}
        <p class="text-center text-2xl">
          That was the last sentence.
          {#if readCount < lines.length}{lines.length - readCount} of {lines.length} are still said by
            the voice.{/if}
        </p>
      {:else}
        <p class="reading line-clamp-2 text-center text-lg text-quiet" aria-hidden="true">
          {lines[at - 1]?.text ?? ''}
        </p>
        <p
          class="reading text-center text-[clamp(1.4rem,4vw,2.6rem)] leading-tight font-semibold text-balance"
          aria-live="polite"
        >
          {line?.text ?? ''}
        </p>
        <p class="reading line-clamp-2 text-center text-lg text-quiet">
          {lines[at + 1]?.text ?? ''}
        </p>
      {/if}
    </div>
    {#if microphone.isOn}
      <div class="flex items-center gap-3 text-sm">
        <TimeCode seconds={microphone.seconds} />
        <meter
          class="min-w-0 flex-1"
          aria-label="How loud the microphone is"
          min="0"
          max="1"
          low="0.05"
          high="0.95"
          optimum="0.5"
          value={microphone.level}
        ></meter>
      </div>
    {/if}
    {#if reading.message}<p role="alert">{reading.message}</p>{/if}
    <div class="flex flex-wrap items-center gap-2">
      <button class="{microphone.isOn ? 'plain' : 'strong'} btn" onclick={toggle}>
        {#if microphone.isOn}<Square aria-hidden="true" />Stop recording{:else}<Mic
            aria-hidden="true"
          />Record{/if}
      </button>
      {#if microphone.isOn}
        <button class="strong btn" disabled={isAtEnd} onclick={() => press(() => reading.next())}
          >Next sentence</button
        >
        <button class="plain btn" onclick={() => press(() => reading.again())}
          >Start this one over</button
        >
      {:else}
        <button
          class="plain btn"
          disabled={isAtEnd}
          onclick={() => press(() => reading.goTo(at + 1))}>Skip</button
        >
      {/if}
      <button
        class="plain btn"
        disabled={at === 0}
        onclick={() => press(() => reading.goTo(at - 1))}>Previous</button
      >
      {#if line?.take && !microphone.isOn}
        <button class="plain btn" onclick={() => line?.take && preview.say(line.take.key)}
          ><Volume2 aria-hidden="true" />Play your recording</button
        >
      {/if}
      <label class="ml-auto flex items-center gap-1.5 text-sm"
        ><input type="checkbox" bind:checked={reading.isDenoised} /> Reduce background noise</label
      >
    </div>
    <p class="text-sm text-quiet">
      Space or → goes on to the next sentence, ← goes back, Backspace starts the sentence over.
      Silence around each sentence is cut, and all are made equally loud.
    </p>
  </div>
</dialog>
