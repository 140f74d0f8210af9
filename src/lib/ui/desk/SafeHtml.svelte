<script lang="ts" module>
  import DOMPurify from 'dompurify';
  import { ATTRIBUTES, TAGS } from '$lib/core/feeds/allowed.ts';

  const purifier = DOMPurify(window);
  // A player plays and may be opened by itself; it opens nothing here and asks for nothing.
  purifier.addHook('afterSanitizeAttributes', (node) => {
    if (node.tagName === 'IFRAME')
      node.setAttribute(
        'sandbox',
        'allow-scripts allow-same-origin allow-presentation allow-popups'
      );
  });
</script>

<script lang="ts">
  interface Props {
    html: string;
    label: string;
    language: string;
    /** As tall as most of the screen. */
    isTall?: boolean;
  }
  let { html, label, language, isTall = false }: Props = $props();
  // Cleaned where it was stored, and again by the same list here, where it is shown.
  const clean = $derived(
    purifier.sanitize(html, {
      ALLOWED_TAGS: [...TAGS],
      ALLOWED_ATTR: [...new Set(Object.values(ATTRIBUTES).flat()), 'class'],
      ALLOW_DATA_ATTR: false,
      ALLOW_ARIA_ATTR: false
    })
  );
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
  {@html clean}
</div>
