<script lang="ts">
  import { timeCode } from '$lib/core/chapters/chapter.ts';

  let { seconds }: { seconds: number } = $props();
</script>

<time class="times" datetime="PT{Math.round(seconds)}S">{timeCode(seconds)}</time>
