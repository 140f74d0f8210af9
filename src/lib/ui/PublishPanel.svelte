<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Which half is published; it has the colour of its thread. */
    side: 'video' | 'post';
    /** Fields and what to know of them. */
    children: Snippet;
    /** What the button does; without it there is no button. */
    action?: { label: string; isReady: boolean; run: () => unknown };
    /** Below the button: what is in its way, and how each delivery stands. */
    status?: Snippet;
  }
  let { side, children, action, status }: Props = $props();
  const id = $props.id();
</script>

<section
  aria-labelledby={id}
  class="flex flex-col gap-3 rounded-container border border-l-4 {side === 'video'
    ? 'border-video'
    : 'border-post'} bg-sheet p-3 text-sm"
>
  <h2 {id} class="text-base font-semibold">Publish</h2>
  {@render children()}
  {#if action}
    <div class="publish">
      <button
        class="strong btn w-full whitespace-normal"
        disabled={!action.isReady}
        onclick={() => action.run()}>{action.label}</button
      >
    </div>
  {/if}
  {@render status?.()}
</section>

<style>
  /* On a telephone the one thing to do is always in sight. */
  @media (width < 64rem) {
    .publish {
      position: fixed;
      inset: auto 0 var(--deck, 0px);
      z-index: 15;
      border-top: 1px solid var(--line);
      background: var(--sheet);
      padding: 0.5rem 0.75rem;
    }
  }
</style>
