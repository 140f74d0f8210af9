<script lang="ts">
  import { onMount } from 'svelte';
  import { fromFragment, type HandOff } from '$lib/core/updates/handOff.ts';
  import { addressFromInput, isSameSite } from '$lib/core/feeds/address.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { keptFile } from '$lib/data/media.ts';
  import { copyText } from '$lib/ui/copyText.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { answerHandOff } from '$lib/work/handOff.ts';
  import { downloadBlob } from '$lib/work/download.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  let handOff = $state.raw<HandOff | null>(null);
  let isBroken = $state(false);
  let file = $state.raw<Blob | null>(null);
  let copied = $state('');
  let address = $state('');
  let isWrong = $state(false);
  let isElsewhere = $state(false);
  let isBusy = $state(false);
  let isDone = $state(false);
  let problem = $state.raw<Problem | null>(null);

  onMount(async () => {
    handOff = await fromFragment(location.hash.slice(1));
    isBroken = !handOff;
    if (handOff?.file?.id) file = await keptFile(handOff.file.id);
  });

  const points = $derived(
    (handOff?.options ?? []).map((o) => `${o.text}${o.right ? ' (right)' : ''}`).join('\n')
  );
  const pieces = $derived(
    handOff
      ? [
          { name: 'title', value: handOff.title },
          { name: 'text', value: [handOff.text, handOff.hashtags].filter(Boolean).join('\n\n') },
          { name: 'options', value: points },
          { name: 'link', value: handOff.link },
          { name: 'what the picture shows', value: handOff.file ? handOff.alt : '' }
        ].filter((piece) => piece.value)
      : []
  );

  async function copy(name: string, value: string) {
    copied = (await copyText(value)) ? name : '';
  }
  async function done(event: SubmitEvent) {
    event.preventDefault();
    const url = addressFromInput(address);
    isWrong = !url;
    if (!url || !handOff) return;
    isElsewhere = !isSameSite(url, handOff.placeUrl);
    if (isElsewhere) return;
    const to = handOff;
    isBusy = true;
    const sent = await attempt(() => answerHandOff(to, url));
    isBusy = false;
    problem = sent.problem;
    isDone = !sent.problem;
  }
</script>

<svelte:head><title>Post by hand · Swift Twin</title></svelte:head>

<div class="h-full overflow-y-auto">
  <div class="mx-auto flex max-w-xl flex-col gap-4 p-4">
    {#if isBroken}
      <h1 class="text-lg font-semibold">This address is not whole</h1>
      <p>Open it from the message once more; mail programs sometimes cut long addresses off.</p>
    {:else if handOff}
      <h1 class="text-lg font-semibold">Post by hand at {handOff.place}</h1>
      <ol class="flex flex-col gap-4">
        {#if handOff.file}
          <li class="flex flex-col gap-2">
            <h2 class="font-semibold">The file</h2>
            {#if file}
              {@const kept = file}
              {@const { name } = handOff.file}
              <button class="plain btn" onclick={() => downloadBlob(name, kept)}>Save {name}</button
              >
            {:else if handOff.file.url}
              <a class="plain btn" href={handOff.file.url} target="_blank" rel="noreferrer"
                >Open {handOff.file.name}</a
              >
            {:else}
              <p>{handOff.file.name} is attached to the message. Save it from there.</p>
            {/if}
          </li>
        {/if}
        {#each pieces as { name, value } (name)}
          <li class="flex flex-col gap-2">
            <h2 class="font-semibold first-letter:uppercase">{name}</h2>
            <p
              class="max-h-60 overflow-y-auto rounded-base border border-line bg-sheet p-3 break-words whitespace-pre-line"
            >
              {value}
            </p>
            <button class="plain btn" onclick={() => copy(name, value)}
              >{copied === name ? 'Copied' : 'Copy'}<span class="sr-only"> the {name}</span></button
            >
          </li>
        {/each}
        <li class="flex flex-col gap-2">
          <h2 class="font-semibold">There</h2>
          <a class="strong btn" href={handOff.placeUrl} target="_blank" rel="noreferrer"
            >Open {handOff.place}</a
          >
        </li>
        <li>
          {#if isDone}
            <p role="status" class="font-semibold">Done. The update is closed with this address.</p>
          {:else}
            <form class="flex flex-col gap-2" onsubmit={done}>
              <label class="font-semibold" for="got">The address it got</label>
              <input
                id="got"
                class="field"
                inputmode="url"
                autocomplete="off"
                placeholder="https://"
                bind:value={address}
              />
              {#if isWrong}<p role="alert">This is not a web address. Copy it from there.</p>{/if}
              {#if isElsewhere}<p role="alert">
                  This address is not at {handOff.place}. Copy the one of what you posted there.
                </p>{/if}
              <button class="strong btn" disabled={isBusy || address.trim() === ''}>Done</button>
            </form>
            {#if problem}<ProblemNote {problem} item={handOff.place} />{/if}
          {/if}
        </li>
      </ol>
      <p class="text-sm text-quiet" role="status">
        {copied ? `Copied: ${copied}.` : 'Copy, then paste it there.'}
      </p>
    {/if}
  </div>
</div>
