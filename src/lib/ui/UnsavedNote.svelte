<script lang="ts" generics="F extends object">
  import ProblemNote from './ProblemNote.svelte';
  import type { Autosave } from './autosave.svelte.ts';
  import { fieldLabels } from './fieldLabels.ts';

  let { autosave }: { autosave: Autosave<F> } = $props();
  const clashing = $derived(Object.keys(autosave.clashing));
</script>

{#if autosave.problem}
  <ProblemNote problem={autosave.problem} item="Your last changes are not saved">
    {#snippet actions()}
      <button class="plain btn btn-sm" onclick={() => autosave.saveNow()}>Save again</button>
    {/snippet}
  </ProblemNote>
{/if}
{#if clashing.length > 0}
  <div
    role="alert"
    class="flex flex-col items-start gap-2 rounded-base border border-edge bg-sheet p-2 text-sm"
  >
    <p>
      Another tab changed the same thing: {clashing
        .map((name) => fieldLabels[name] ?? name)
        .join(', ')}. What you typed here is not saved yet.
    </p>
    <p class="flex flex-wrap gap-2">
      <button class="plain btn btn-sm" onclick={() => autosave.keepMine()}>Keep this tab’s</button>
      <button class="plain btn btn-sm" onclick={() => autosave.takeTheirs()}
        >Use the other tab’s</button
      >
    </p>
  </div>
{/if}
