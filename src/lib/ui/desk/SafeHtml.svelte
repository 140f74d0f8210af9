<script lang="ts">
  import DOMPurify from 'dompurify';

  let { html }: { html: string } = $props();
  // Cleaned where it was stored, and again here, where it is shown.
  const clean = $derived(
    DOMPurify.sanitize(html, { ADD_TAGS: ['iframe'], ADD_ATTR: ['allowfullscreen', 'loading'], FORBID_TAGS: ['style', 'form'] })
  );
</script>

<!-- eslint-disable-next-line svelte/no-at-html-tags -->
<div class="reading" tabindex="-1">{@html clean}</div>
