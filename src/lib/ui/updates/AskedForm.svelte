<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Asked } from '$lib/core/updates/draft.ts';
  import { noQuizLabels } from '$lib/ui/updateMessages.ts';
  import type { Updates } from './updatesState.svelte.ts';

  let { updates, form }: { updates: Updates; form: 'poll' | 'quiz' } = $props();
  const asked = $derived(updates.draft?.[form] ?? null);
  const empty = (): Asked => ({
    question: '',
    options: [0, 1].map((n) => ({ text: '', right: form === 'quiz' && n === 0 })),
    why: ''
  });
  const proposals = $derived<{ asked: Asked; sure: number | null }[]>(
    form === 'poll'
      ? (updates.proposals?.polls ?? []).map(({ question, options }) => ({
          asked: {
            question,
            options: options.map((text) => ({ text, right: false })),
            why: ''
          },
          sure: null
        }))
      : (updates.proposals?.quiz ?? []).map(({ question, options, why, score }) => ({
          asked: { question, options, why },
          sure: score
        }))
  );
  const name = $props.id();
</script>

<div class="grid gap-4 md:grid-cols-2">
  <div class="flex flex-col gap-2">
    {#if asked}
      <label class="flex flex-col gap-1">
        <span class="text-sm font-semibold">Question</span>
        <textarea class="field" rows="3" bind:value={asked.question}></textarea>
      </label>
      <fieldset class="flex flex-col gap-1">
        <legend class="text-sm font-semibold">
          {form === 'quiz' ? 'Options; mark the right one' : 'Options'}
        </legend>
        {#each asked.options as option, i (i)}
          <div class="flex items-center gap-2">
            {#if form === 'quiz'}
              <input
                type="radio"
                {name}
                aria-label="Option {i + 1} is right"
                checked={option.right}
                onchange={() => asked.options.forEach((o, k) => (o.right = k === i))}
              />
            {/if}
            <input
              class="field min-w-0 flex-1"
              aria-label="Option {i + 1}"
              bind:value={option.text}
            />
            <span class="figures w-8 text-right text-quiet">{[...option.text].length}</span>
            <button
              class="bare btn-icon btn-icon-sm"
              aria-label="Remove option {i + 1}"
              disabled={asked.options.length <= 2}
              onclick={() => asked.options.splice(i, 1)}><X aria-hidden="true" /></button
            >
          </div>
        {/each}
      </fieldset>
      <button
        class="plain btn self-start btn-sm"
        disabled={asked.options.length >= 5}
        onclick={() => asked.options.push({ text: '', right: false })}>Add an option</button
      >
      {#if form === 'quiz'}
        <label class="flex flex-col gap-1">
          <span class="text-sm font-semibold">Why, shown after the answer</span>
          <input class="field" bind:value={asked.why} />
        </label>
      {/if}
    {:else}
      <button class="plain btn self-start btn-sm" onclick={() => updates.ask(form, empty())}
        >Write {form === 'quiz' ? 'a quiz' : 'a poll'} yourself</button
      >
    {/if}
  </div>
  <div class="flex min-w-0 flex-col gap-1">
    <h3 class="text-sm font-semibold">From the item</h3>
    {#if form === 'quiz' && updates.proposals?.noQuiz}
      <p class="text-sm">{noQuizLabels[updates.proposals.noQuiz]}</p>
    {:else if form === 'poll' && updates.proposals?.polls.length === 0}
      <p class="text-sm">
        No poll was found: the item asks nothing and names no parts or choices to pick from.
      </p>
    {/if}
    <ul class="flex max-h-72 flex-col gap-1 overflow-y-auto text-sm" aria-label="Proposals">
      {#each proposals as { asked: proposed, sure }, i (i)}
        <li class="rounded-base border border-line p-2">
          <p>{proposed.question}</p>
          <p class="text-quiet">
            {proposed.options.map((o) => o.text).join(' / ')}
            {#if sure !== null}
              · <span class="figures">{Math.round(sure * 100)} of 100</span> sure{/if}
          </p>
          {#if proposed.why}<p class="text-quiet">It says: {proposed.why}</p>{/if}
          <button
            class="bare btn btn-sm"
            onclick={() => updates.ask(form, $state.snapshot(proposed) as Asked)}
            >Use this one</button
          >
        </li>
      {/each}
    </ul>
  </div>
</div>
