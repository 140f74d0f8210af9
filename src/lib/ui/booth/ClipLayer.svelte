<script lang="ts">
  import { keptFile } from '$lib/data/media.ts';

  interface Props {
    /** Name of a kept clip. */
    clip: string;
    /** Seconds of the clip that are shown. */
    at: number;
    isPlaying: boolean;
  }
  let { clip, at, isPlaying }: Props = $props();
  let url = $state('');
  let video = $state<HTMLVideoElement>();

  $effect(() => {
    const name = clip;
    let made = '';
    let isGone = false;
    void keptFile(name).then((file) => {
      if (!file || isGone) return;
      made = URL.createObjectURL(file);
      url = made;
    });
    return () => {
      isGone = true;
      URL.revokeObjectURL(made);
    };
  });
  $effect(() => {
    if (!video) return;
    // The clock of the preview leads; a clip that drifts from it is put right.
    if (Math.abs(video.currentTime - at) > 0.25) video.currentTime = at;
    if (isPlaying) void video.play().catch(() => {});
    else video.pause();
  });
</script>

{#if url}
  <!-- svelte-ignore a11y_media_has_caption -->
  <video
    bind:this={video}
    src={url}
    class="absolute inset-0 size-full bg-black object-contain"
    aria-label="Your clip"
  ></video>
{/if}
