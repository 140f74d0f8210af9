<script lang="ts">
  import type { LinkProposal } from '$lib/core/links/propose.ts';
  import { plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import type { Desk } from './deskState.svelte.ts';
  import { Links } from './linksState.svelte.ts';
  import { showInText } from './showInText.ts';

  let { desk }: { desk: Desk } = $props();
  // svelte-ignore state_referenced_locally
  const links = new Links(desk);
  links.follow();

  /** The sentence around the word, in three parts. */
  function parts({ sentence, word, paragraph, from }: LinkProposal) {
    const start = paragraph.indexOf(sentence);
    const at = start >= 0 ? from - start : sentence.indexOf(word);
    return [
      sentence.slice(0, at),
      sentence.slice(at, at + word.length),
      sentence.slice(at + word.length)
    ];
  }
  const show = ({ paragraph, from, word }: LinkProposal) =>
    showInText(paragraph.replace(/\s+/g, ' ').trim(), from, from + word.length);
</script>

<section aria-labelledby="links-title" class="flex flex-col gap-2 text-sm">
  <h2 id="links-title" class="text-base font-semibold">Links</h2>
  {#if links.problem}
    <ProblemNote problem={links.problem} item="Links" />
  {:else if links.found === null}
    <p class="text-quiet">Reading…</p>
  {:else if links.found.length === 0}
    <p class="text-quiet">
      No word of the text is in your <a class="underline" href="/glossary">glossary</a> or the subject
      of another post of yours.
    </p>
  {:else}
    <ul class="flex flex-col gap-2" aria-label="Links to add">
      {#each links.found as one (`${one.url} ${one.from}`)}
        {@const [before, word, after] = parts(one)}
        <li class="flex items-start gap-2">
          <input
            type="checkbox"
            class="mt-1 size-4 shrink-0"
            checked={links.isChosen(one)}
            onchange={() => links.turn(one)}
            aria-label="Link “{one.word}” to {one.title}"
          />
          <div class="min-w-0">
            <p class="line-clamp-3">
              {before}<button class="bg-marked font-semibold underline" onclick={() => show(one)}
                >{word}</button
              >{after}
            </p>
            <p class="wrap-anywhere text-quiet">
              {one.of === 'post' ? 'Your post' : 'Glossary'}:
              <a class="underline" href={one.url} target="_blank" rel="noreferrer"
                >{one.of === 'post' ? one.title : one.url}</a
              >{one.isPaid ? ', paid: the post will say so' : ''}
            </p>
            <p class="flex flex-wrap items-center gap-x-2 text-quiet">
              <span
                >{one.isClear
                  ? one.because.length > 0
                    ? `With ${one.because.join(', ')} nearby.`
                    : ''
                  : 'It may mean something else here.'}</span
              >
              <button class="bare btn btn-sm" onclick={() => links.decline(one)}
                >Not here<span class="sr-only">: {one.word}</span></button
              >
            </p>
          </div>
        </li>
      {/each}
    </ul>
    <p class="flex flex-wrap items-center gap-2">
      <button
        class="plain btn btn-sm"
        disabled={links.chosen.length === 0 || !desk.rewrite}
        onclick={() => links.add()}>Add {plural(links.chosen.length, 'link', 'links')}</button
      >
      <a class="underline" href="/glossary">Glossary</a>
      {#if !desk.rewrite}<span class="text-quiet">Choose Write to add them.</span>{/if}
    </p>
  {/if}
</section>
