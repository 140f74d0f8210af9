<script lang="ts">
  import { withoutFields } from '$lib/core/article/template/fill.ts';
  import { TITLE_LENGTHS } from '$lib/core/article/extract/titleLengths.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const titles = $derived(desk.extracted?.titles);
</script>

{#if titles}
  <details class="text-sm">
    <summary class="text-quiet">Titles from the talk</summary>
    <div class="grid gap-3 py-1 sm:grid-cols-2">
      {#each [['short', `At most ${TITLE_LENGTHS.short} characters`], ['long', `At most ${TITLE_LENGTHS.long}`]] as [kind, label] (kind)}
        <div role="group" aria-label={label}>
          <p class="text-quiet">{label}</p>
          <ul class="flex flex-col">
            {#each titles[kind as 'short' | 'long'] as title (title)}
              <li>
                <button
                  class="w-full rounded-base px-1 py-0.5 text-left hover:bg-marked"
                  onclick={() => (desk.template.title = withoutFields(title))}
                  >{title} <span class="figures text-quiet">{title.length}</span></button
                >
              </li>
            {/each}
          </ul>
        </div>
      {/each}
    </div>
  </details>
{/if}
