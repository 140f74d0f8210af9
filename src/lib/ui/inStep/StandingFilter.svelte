<script lang="ts">
  import type { Standing } from '$lib/core/model/twin.ts';
  import type { StandingCounts } from '$lib/core/twins/inStep.ts';
  import Tie from '$lib/ui/Tie.svelte';
  import { standingLabels } from '$lib/ui/messages.ts';

  let { counts, chosen = $bindable() }: { counts: StandingCounts; chosen: Standing | null } =
    $props();
  const standings = Object.keys(standingLabels) as Standing[];
</script>

<div
  class="flex gap-1.5 overflow-x-auto p-0.5 md:flex-wrap"
  role="group"
  aria-label="Show by standing"
>
  {#each standings as standing (standing)}
    <button
      class="flex shrink-0 items-center gap-2 rounded-base border bg-sheet px-2 py-1 text-sm {chosen ===
      standing
        ? 'border-ink ring-1 ring-ink'
        : 'border-line hover:border-edge'}"
      aria-pressed={chosen === standing}
      onclick={() => (chosen = chosen === standing ? null : standing)}
    >
      <Tie {standing} compact />
      {standingLabels[standing]}
      <span class="figures font-semibold">{counts[standing].toLocaleString('en')}</span>
    </button>
  {/each}
</div>
