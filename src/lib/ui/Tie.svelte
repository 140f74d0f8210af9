<script lang="ts">
  import type { Standing } from '$lib/core/model/twin.ts';

  interface Props {
    standing: Standing;
    compact?: boolean;
    /** Smaller, beside words that say the same. */
    quiet?: boolean;
  }
  let { standing, compact = false, quiet = false }: Props = $props();

  // The thread of the video comes from the left, that of the post from the right. What happens
  // between them is the standing; where one passes over, the other has a gap.
</script>

<svg
  viewBox="0 0 96 32"
  class={compact ? 'h-4 w-12' : quiet ? 'h-5 w-[4.5rem]' : 'h-8 w-24'}
  fill="none"
  stroke-width={quiet ? 3.5 : 4}
  stroke-linecap="round"
  aria-hidden="true"
>
  {#if standing === 'in-step'}
    <path class="video" d="M0 11 C16 11 16 21 32 21 S48 11 64 11 80 21 96 21" />
    <path class="gap" d="M10 19.75 L22 12.25 M74 19.75 L86 12.25" />
    <path class="post" d="M96 11 C80 11 80 21 64 21 S48 11 32 11 16 21 0 21" />
    <path class="gap" d="M42 19.75 L54 12.25" />
    <path class="video" d="M40 20.400 C44 18.900 52 13.100 56 11.600" />
  {:else if standing === 'no-post'}
    <path class="video" d="M0 16 H60" />
    <circle class="open" cx="72" cy="16" r="9" stroke-width="2" stroke-dasharray="3 3.600" />
  {:else if standing === 'no-video'}
    <circle class="open" cx="24" cy="16" r="9" stroke-width="2" stroke-dasharray="3 3.600" />
    <path class="post" d="M96 16 H36" />
  {:else if standing === 'drifted'}
    <path class="video" d="M0 16 C18 16 24 5 54 5" />
    <path class="post" d="M96 16 C78 16 72 27 42 27" />
    <path class="open" d="M48 11 V21" stroke-width="2" />
  {:else if standing === 'in-hand'}
    <path class="video" d="M0 16 H34" />
    <path class="open" d="M42 16 H54" stroke-width="3" stroke-dasharray="0.100 6" />
    <path class="post" d="M62 16 H96" stroke-dasharray="6 7" />
  {:else}
    <path class="open" d="M4 16 H36 M60 16 H92" stroke-width="2" />
    <path class="open" d="M43 11 L53 21 M53 11 L43 21" stroke-width="2" />
  {/if}
</svg>

<style>
  .video {
    stroke: var(--thread-video);
  }
  .post {
    stroke: var(--thread-post);
  }
  .open {
    stroke: var(--ink-quiet);
  }
  .gap {
    stroke: var(--row, var(--canvas));
    stroke-width: 9;
    stroke-linecap: butt;
  }
</style>
