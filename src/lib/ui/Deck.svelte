<script lang="ts">
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import Square from '@lucide/svelte/icons/square';
  import X from '@lucide/svelte/icons/x';
  import { tasks } from '$lib/work/tasks.svelte.ts';
  import { deck } from './deck.svelte.ts';
  import Progress from './Progress.svelte';
  import TimeCode from './TimeCode.svelte';

  let video = $state<HTMLVideoElement>();
  let paused = $state(true);
  let time = $state(0);
  let failed = $state(false);
  let height = $state(0);
  const playing = $derived(deck.playing);
  /** There when something plays or works, or has just been said. */
  const isIdle = $derived(
    !playing && !deck.reading && tasks.running.length === 0 && deck.message === ''
  );
  // What sticks to the bottom of a telephone stands above it.
  $effect(() => document.documentElement.style.setProperty('--deck', `${height}px`));
  const useFrame = $derived(
    playing !== null && (!playing.contentUrl || failed) && playing.embedUrl !== ''
  );

  $effect(() => {
    if (!playing || !video) return;
    void playing.turn;
    const element = video;
    element.currentTime = playing.at;
    element.play().catch(() => {
      // Browsers may hold a video back until it is clicked; the play button is there for that.
    });
  });
  function act() {
    const { action } = deck;
    deck.say('');
    void action?.run();
  }
  $effect(() => {
    void playing?.contentUrl;
    failed = false;
  });
</script>

<footer
  aria-label="Deck"
  bind:clientHeight={height}
  class="relative z-20 flex items-center gap-3 bg-sheet {isIdle
    ? 'h-0 overflow-hidden'
    : 'min-h-12 border-t border-line px-3 py-1'}"
>
  {#if playing}
    <div class="w-36 shrink-0 overflow-hidden rounded-base border border-edge sm:w-56">
      {#if useFrame}
        {#key playing.turn}
          <iframe
            title={playing.title}
            src="{playing.embedUrl}{playing.embedUrl.includes('?') ? '&' : '?'}t={Math.round(
              playing.at
            )}"
            class="block aspect-video w-full"
            allowfullscreen
          ></iframe>
        {/key}
      {:else if playing.contentUrl}
        <!-- The transcript stands beside it on the desk. -->
        <!-- svelte-ignore a11y_media_has_caption -->
        <video
          bind:this={video}
          bind:paused
          bind:currentTime={time}
          onerror={() => (failed = true)}
          src={playing.contentUrl}
          class="block max-h-40 w-full bg-black"
          aria-label={playing.title}
          playsinline
        ></video>
      {:else}
        <p class="p-3 text-sm">The channel gives no player for this video.</p>
      {/if}
    </div>
    {#if !useFrame && playing.contentUrl}
      <button
        class="plain btn-icon btn-icon-sm"
        aria-label={paused ? 'Play' : 'Pause'}
        onclick={() => (paused ? video?.play() : video?.pause())}
      >
        {#if paused}<Play aria-hidden="true" />{:else}<Pause aria-hidden="true" />{/if}
      </button>
      <TimeCode seconds={time} />
    {/if}
    <span class="min-w-0 truncate text-sm">{playing.title}</span>
    <button
      class="bare btn-icon btn-icon-sm"
      aria-label="Close the player"
      onclick={() => deck.close()}
    >
      <X aria-hidden="true" />
    </button>
  {:else if deck.reading}
    <button class="plain btn btn-sm" onclick={() => deck.hush()}>
      <Square aria-hidden="true" />Stop reading
    </button>
    <p class="min-w-0 flex-1 truncate text-sm" aria-label="Read aloud: {deck.reading.label}">
      {#if deck.reading.sentence}
        {@const { sentence, from, to } = deck.reading}
        <!-- The beginning gives way, so that the word stays in sight. -->
        {from > 60 ? '… ' : ''}{sentence.slice(Math.max(0, from - 60), from)}<mark
          class="rounded-base bg-marked px-0.5 text-ink">{sentence.slice(from, to)}</mark
        >{sentence.slice(to)}
      {:else}{deck.reading.label}{/if}
    </p>
  {/if}
  <div class="ml-auto flex min-w-0 items-center gap-4">
    {#each tasks.running as task (task.id)}<Progress {task} />{/each}
    <p role="status" class="min-w-0 truncate text-sm" title={deck.message}>
      {tasks.running.length === 0 || deck.action ? deck.message : ''}
    </p>
    {#if deck.action}
      <button class="plain btn shrink-0 btn-sm" onclick={act}>{deck.action.label}</button>
    {/if}
  </div>
</footer>
