<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Task } from '$lib/work/tasks.svelte.ts';

  let { task }: { task: Task } = $props();
</script>

<div class="flex min-w-0 items-center gap-2 text-sm">
  <span class="truncate">{task.label}</span>
  <span class="hidden truncate text-quiet sm:inline">{task.step}</span>
  <progress
    class="h-1.5 w-20 shrink-0"
    max="1"
    value={task.done ?? undefined}
    aria-label="Progress of: {task.label}"
  ></progress>
  <button
    class="bare btn shrink-0 btn-sm"
    aria-label="Stop: {task.label}"
    onclick={() => task.stop()}
  >
    <X aria-hidden="true" />Stop
  </button>
</div>

<style>
  progress {
    accent-color: var(--ink);
  }
</style>
