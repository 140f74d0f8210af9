<script lang="ts">
  import { lengthOf } from '$lib/video/job.ts';
  import X from '@lucide/svelte/icons/x';
  import Choice from '$lib/ui/Choice.svelte';
  import { leftSilentMessage, runningTime } from '$lib/ui/boothMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import type { Booth } from './boothState.svelte.ts';

  let { booth }: { booth: Booth } = $props();
  const targets: [value: number | null, label: string][] = [
    [30, '30 s'],
    [60, '1 min'],
    [180, '3 min'],
    [300, '5 min'],
    [null, 'Whole']
  ];
  let written = $state('');
  let said = $state('');
  const narration = $derived(booth.narration);
  const leftOut = $derived(booth.script?.leftSilent.filter((n) => n.text) ?? []);
  /** As it will run, once it is laid out; before that, as it is reckoned. */
  const seconds = $derived(booth.plan ? lengthOf(booth.plan) : (booth.script?.seconds ?? 0));

  function add() {
    if (!narration || !written.trim() || !said.trim()) return;
    narration.options.pronunciations.push({ written: written.trim(), said: said.trim() });
    written = said = '';
  }
</script>

{#if narration}
  <section aria-labelledby="script-title" class="flex flex-col gap-2 text-sm">
    <h2 id="script-title" class="text-base font-semibold">Length</h2>
    <p>
      This video runs <strong class="times">{runningTime(seconds)}</strong>.
      {#if booth.script && booth.script.wholeSeconds > booth.script.seconds + 1}
        The whole post would take about {runningTime(booth.script.wholeSeconds)}.
      {/if}
    </p>
    <Choice legend="Target length" options={targets} bind:value={narration.options.target} />
    <Choice
      legend="Words on screen"
      options={[
        ['gist', 'A few words'],
        ['sentence', 'Whole sentences']
      ]}
      bind:value={narration.options.words}
    />
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" bind:checked={narration.options.announcesHeadings} />Read the headings
      out</label
    >
    <label class="flex items-center gap-1.5"
      ><input type="checkbox" bind:checked={narration.options.countsLists} />Say how many points a
      list has</label
    >
    <label class="flex items-center gap-1.5"
      ><input
        type="checkbox"
        checked={narration.options.asides === 'tell'}
        onchange={(event) =>
          (narration.options.asides = event.currentTarget.checked ? 'tell' : 'leave-out')}
      />Say where code, tables and players are</label
    >
    {#if leftOut.length > 0}
      <details>
        <summary>{plural(leftOut.length, 'passage is', 'passages are')} left out</summary>
        <ul class="flex max-h-60 flex-col gap-2 overflow-y-auto py-1">
          {#each leftOut as passage, i (i)}
            <li>
              <span class="text-quiet">{leftSilentMessage(passage.reason)}</span>
              <span class="reading line-clamp-3">{passage.text}</span>
              <button class="plain btn btn-sm" onclick={() => booth.addScene(passage.text)}
                >Put back after this scene<span class="sr-only">: {passage.text.slice(0, 40)}</span
                ></button
              >
            </li>
          {/each}
        </ul>
      </details>
    {/if}
    <details>
      <summary>Pronunciations</summary>
      <ul class="flex flex-col py-1">
        {#each narration.options.pronunciations as { written, said }, i (written)}
          <li class="flex items-center gap-2">
            <span class="min-w-0 flex-1 truncate">{written} → {said}</span>
            <button
              class="bare btn-icon btn-icon-sm"
              aria-label="Remove {written}"
              onclick={() => narration.options.pronunciations.splice(i, 1)}
              ><X aria-hidden="true" class="size-4" /></button
            >
          </li>
        {/each}
      </ul>
      <form
        class="grid grid-cols-[1fr_1fr_auto] items-end gap-1"
        onsubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <label>Written <input class="field" bind:value={written} /></label>
        <label>Said <input class="field" bind:value={said} /></label>
        <button class="plain btn btn-sm">Add</button>
      </form>
    </details>
  </section>
{/if}
