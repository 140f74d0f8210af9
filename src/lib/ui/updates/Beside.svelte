<script lang="ts">
  import { shownSchema } from '$lib/core/updates/draft.ts';
  import { styleNameSchema } from '$lib/core/narration/styles.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import { mediaProblemMessage, styleLabels } from '$lib/ui/boothMessages.ts';
  import { shownLabels } from '$lib/ui/updateMessages.ts';
  import Subject from './Subject.svelte';
  import type { Updates } from './updatesState.svelte.ts';

  let { updates }: { updates: Updates } = $props();
  const draft = $derived(updates.draft);
  let message = $state('');

  async function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (!file) return;
    const problem = await updates.importClip(file);
    message = problem ? mediaProblemMessage(problem, file.name) : '';
  }
</script>

{#if draft}
  <Choice
    legend="Attachment"
    shown="beside"
    options={shownSchema.options
      .filter((kind) => kind !== 'picture' || updates.picture)
      .map((kind) => [kind, shownLabels[kind]] as const)}
    bind:value={draft.shown}
  />
  {#if draft.shown === 'picture' && updates.picture}
    <Subject picture={updates.picture} bind:subject={draft.subject} />
  {:else if draft.shown === 'card'}
    <label class="flex flex-col gap-1">
      <span class="font-semibold">What is quoted</span>
      <textarea
        class="field"
        rows="2"
        value={updates.quotation}
        oninput={(event) => (draft.card.text = event.currentTarget.value)}></textarea>
    </label>
    <div class="flex flex-wrap items-center gap-3">
      <label class="flex items-center gap-2"
        >Cards
        <select class="field" bind:value={draft.card.style.name}>
          {#each styleNameSchema.options as name (name)}<option value={name}
              >{styleLabels[name]}</option
            >{/each}
        </select>
      </label>
      <label class="flex items-center gap-2"
        ><input type="color" class="h-8 w-12" bind:value={draft.card.style.ground} /> Ground</label
      >
      <label class="flex items-center gap-2"
        ><input type="color" class="h-8 w-12" bind:value={draft.card.style.accent} /> Accent</label
      >
      {#if draft.card.text !== null}
        <button class="bare btn btn-sm" onclick={() => (draft.card.text = null)}
          >Use the proposed text</button
        >
      {/if}
    </div>
  {:else if draft.shown === 'clip'}
    <p class="flex flex-wrap items-center gap-3">
      <label class="plain btn cursor-pointer btn-sm">
        {draft.clip ? 'Another clip' : 'Choose a clip'}
        <input class="sr-only" type="file" accept="video/webm,video/mp4" onchange={bring} />
      </label>
      {#if draft.clip}
        <span class="break-all"
          >{draft.clip.name}, {draft.clip.seconds.toFixed(1)} s, {(
            draft.clip.bytes / 1_000_000
          ).toFixed(1)} MB</span
        >
      {/if}
    </p>
    {#if message}<p role="alert">{message}</p>{/if}
  {/if}
  {#if draft.shown !== 'nothing'}
    <label class="flex flex-col gap-1">
      <span class="font-semibold">What the {draft.shown === 'clip' ? 'clip' : 'picture'} shows</span
      >
      <input
        class="field"
        value={updates.alt}
        oninput={(event) => (draft.alt = event.currentTarget.value)}
      />
    </label>
  {/if}
{/if}
