<script lang="ts">
  import ImageOff from '@lucide/svelte/icons/image-off';

  interface Props {
    url: string;
    /** Its size and corners. */
    class: string;
  }
  let { url, class: frame }: Props = $props();
  /** The address that could not be loaded: another one is tried. */
  let failed = $state.raw('');
</script>

{#if failed === url}
  <span
    class="grid place-items-center bg-line text-quiet {frame}"
    title="The picture cannot be loaded from its place"
    ><ImageOff aria-hidden="true" class="size-4" /></span
  >
{:else}
  <img
    src={url}
    alt=""
    loading="lazy"
    decoding="async"
    class="object-cover {frame}"
    onerror={() => (failed = url)}
  />
{/if}
