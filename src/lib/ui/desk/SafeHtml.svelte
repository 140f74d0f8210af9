<script lang="ts">
  import { safeHtml } from './safeHtml.ts';

  interface Props {
    html: string;
    label: string;
    language: string;
    /** As tall as most of the screen. */
    isTall?: boolean;
  }
  let { html, label, language, isTall = false }: Props = $props();
</script>

<!-- It scrolls, so it takes the focus: the arrow keys reach what is out of sight. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="reading {isTall ? 'max-h-[70vh]' : 'max-h-80'} overflow-y-auto"
  role="group"
  aria-label={label}
  lang={language || undefined}
  tabindex="0"
>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -->
  {@html safeHtml(html)}
</div>
