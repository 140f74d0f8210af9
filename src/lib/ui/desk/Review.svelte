<script lang="ts">
  import {
    easeMessage,
    leftOutLabels,
    phrasePlaceLabels,
    reviewMessage
  } from '$lib/ui/talkMessages.ts';
  import { plural } from '$lib/ui/messages.ts';
  import type { PhrasePlace } from '$lib/core/article/review/phrases.ts';
  import type { LeftOutReason } from '$lib/core/article/extract/written.ts';
  import type { Spot } from '$lib/core/article/review/review.ts';
  import type { Desk } from './deskState.svelte.ts';
  import Names from './Names.svelte';
  import { showInText } from './showInText.ts';

  let { desk }: { desk: Desk } = $props();
  const review = $derived(desk.reviewed?.review);
  /** Which of its places a finding shows next. */
  let turns = $state<Record<string, number>>({});

  const used = $derived.by(() => {
    const total = desk.talk?.sentences.length ?? 0;
    const out = desk.extracted?.article.leftOut.length ?? 0;
    return total > 0
      ? { total, kept: total - out, share: Math.round((100 * (total - out)) / total) }
      : null;
  });
  const reasons = $derived.by(() => {
    const counts = new Map<LeftOutReason, number>();
    for (const { reason } of desk.extracted?.article.leftOut ?? [])
      counts.set(reason, (counts.get(reason) ?? 0) + 1);
    return [...counts].sort((a, b) => b[1] - a[1]);
  });

  function show(id: string, spots: readonly Spot[]) {
    const turn = turns[id] ?? 0;
    const spot = spots[turn % spots.length];
    turns[id] = turn + 1;
    const block = spot && desk.reviewed?.blocks[spot.block];
    if (spot && block) showInText(block.text, spot.from, spot.to);
  }
  let page = $state('');
</script>

<section aria-labelledby="review-title" class="flex flex-col gap-2">
  <h2 id="review-title" class="font-semibold">How it reads</h2>
  {#if review}
    <p class="text-sm text-quiet">
      {plural(review.words, 'word', 'words')} in {plural(
        review.sentences,
        'sentence',
        'sentences'
      )}{review.ease !== null
        ? `. Reading ease ${Math.round(review.ease)}: ${easeMessage(review.ease)}`
        : ''}{review.grade !== null
        ? `, school grade ${Math.max(1, Math.round(review.grade))}`
        : ''}.
    </p>
    {#if review.findings.length === 0}<p class="text-sm">Nothing stands out.</p>{/if}
    <ul class="flex flex-col gap-0.5 text-sm" aria-label="What stands out">
      {#each review.findings as finding, i (i)}
        <li>
          {#if finding.spots.length > 0}
            <button
              class="w-full rounded-base px-1 text-left underline decoration-dotted hover:bg-marked"
              onclick={() => show(`${finding.kind} ${i}`, finding.spots)}
              >{reviewMessage(finding)}</button
            >
          {:else}<span class="px-1">{reviewMessage(finding)}</span>{/if}
        </li>
      {/each}
    </ul>
  {:else}<p class="text-sm text-quiet">Reading…</p>{/if}
  {#if used}
    <details class="text-sm">
      <summary
        >{used.kept} of {used.total} sentences of the talk are in the article ({used.share} %)</summary
      >
      <ul class="list-disc py-1 pl-4">
        {#each reasons as [reason, count] (reason)}<li>
            {count} left out: {leftOutLabels[reason]}
          </li>{/each}
      </ul>
    </details>
  {/if}
  <Names label="Search phrases" value={desk.phrases} onchange={(value) => (desk.phrases = value)} />
  {#each desk.reviewed?.phrases ?? [] as standing (standing.phrase)}
    <div class="text-sm">
      <p>
        <span class="font-semibold">{standing.phrase}</span>
        <span class="figures">{standing.score}</span> of 100
      </p>
      <p class="text-quiet">
        {Object.entries(standing.counts)
          .map(([place, n]) => `${phrasePlaceLabels[place as PhrasePlace]} ${n}`)
          .join(', ')}. {standing.rate} in a thousand words; good pages have {standing.range.least.toFixed(
          0
        )} to {standing.range.most.toFixed(0)}.
      </p>
    </div>
  {/each}
  {#if desk.phrases.length > 0}
    <details class="text-sm">
      <summary class="text-quiet">Pages you admire: {desk.admired.length || 'none yet'}</summary>
      <div class="flex flex-col gap-2 py-1">
        <p class="text-quiet">
          Paste the text of two or three; how often they use the phrases sets the range.
        </p>
        {#each desk.admired as text, i (i)}
          <p class="flex items-center gap-2">
            <span class="min-w-0 flex-1 truncate">{text.slice(0, 80)}</span>
            <button
              class="bare btn btn-sm"
              onclick={() => {
                desk.admired = desk.admired.filter((_, k) => k !== i);
                void desk.saveAdmired();
              }}>Remove</button
            >
          </p>
        {/each}
        <label class="flex flex-col gap-1">
          Text of a page
          <textarea class="field" rows="3" bind:value={page}></textarea>
        </label>
        <button
          class="plain btn self-start btn-sm"
          disabled={!page.trim()}
          onclick={() => {
            desk.admired = [...desk.admired, page.trim()];
            page = '';
            void desk.saveAdmired();
          }}>Add it</button
        >
      </div>
    </details>
  {/if}
</section>
