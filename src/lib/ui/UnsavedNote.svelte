<script lang="ts">
  import ProblemNote from './ProblemNote.svelte';
  import type { Autosave } from './autosave.svelte.ts';

  let { autosave }: { autosave: Autosave } = $props();
</script>

{#if autosave.problem}
  <ProblemNote problem={autosave.problem} item="Your last changes are not saved">
    {#snippet actions()}
      <button class="plain btn btn-sm" onclick={() => autosave.saveNow()}>Save again</button>
    {/snippet}
  </ProblemNote>
{/if}
