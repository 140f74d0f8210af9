<script lang="ts">
  import type { Place, Problem } from '$lib/core/model/place.ts';
  import { readRange } from '$lib/core/reach/log/ownVisits.ts';
  import type { FoundVisits } from '$lib/data/reach.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { formatDateTime, plural } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import {
    addVisits,
    readAccessLog,
    readOwnVisits,
    saveOwnVisits
  } from '$lib/work/reach/accessLog.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';

  let { blogs, onclose }: { blogs: readonly Place[]; onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let chosen = $state('');
  let addresses = $state('');
  let marks = $state('');
  let file = $state.raw<File | null>(null);
  let found = $state.raw<FoundVisits | null>(null);
  let problem = $state.raw<Problem | null>(null);
  let isReading = $state(false);
  let said = $state('');
  const blog = $derived(blogs.find(({ id }) => id === chosen) ?? blogs[0]);
  const listOf = (text: string) => text.split(/[,\s]+/).filter(Boolean);
  const wrong = $derived(listOf(addresses).filter((one) => !readRange(one)));
  const counts = $derived(found?.findings.counts);
  const leftOut = $derived(
    counts
      ? (
          [
            [counts.bots, 'by bots'],
            [counts.hiddenBots, 'by bots that call themselves browsers'],
            [counts.own, 'your own'],
            [counts.prefetched, 'fetched in advance by a browser'],
            [counts.again, 'of the same page again within a visit'],
            [counts.known, 'of times that were imported before'],
            [counts.failed, 'refused, moved or not found'],
            [counts.elsewhere, 'for other files and pages'],
            [counts.unreadable, 'that cannot be read']
          ] as const
        ).filter(([count]) => count > 0)
      : []
  );
  const isNoLog = $derived(counts !== undefined && counts.unreadable === counts.lines);

  $effect(() => dialog?.showModal());
  $effect(() => {
    void readOwnVisits().then((own) => {
      addresses = own.addresses.join(', ');
      marks = own.marks.join(', ');
    });
  });

  const own = () => ({
    addresses: listOf(addresses),
    marks: marks
      .split(',')
      .map((mark) => mark.trim())
      .filter(Boolean)
  });

  async function choose({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
    file = currentTarget.files?.[0] ?? null;
    currentTarget.value = '';
    await read();
  }

  async function read() {
    if (!file || !blog) return;
    const chosenFile = file;
    isReading = true;
    said = `Reading “${chosenFile.name}”…`;
    found = null;
    await saveOwnVisits(own());
    const done = await attempt(() => readAccessLog(blog, chosenFile, own()));
    isReading = false;
    problem = done.problem;
    said = '';
    if (done.problem) return;
    found = done.value;
    if (!found)
      said = `“${chosenFile.name}” is damaged and cannot be unpacked. Download it again. Nothing was imported.`;
  }

  async function add() {
    if (!found || !blog) return;
    const adding = found;
    const done = await attempt(() => addVisits(blog, adding));
    problem = done.problem;
    if (!done.value) return;
    const undo = done.value;
    deck.say(`${plural(adding.findings.counts.visits, 'visit', 'visits')} added to Reach.`, {
      label: 'Undo',
      run: undo
    });
    dialog?.close();
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  aria-labelledby="log-title"
  class="m-auto flex max-h-[90vh] w-[36rem] max-w-[calc(100vw-1rem)] flex-col gap-3 overflow-y-auto rounded-container border border-edge bg-sheet p-4 text-sm text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="log-title" class="text-lg font-semibold">Import an access log</h2>
  <p class="text-quiet">
    Your web host lets you download the log of your blog, in the Common or Combined Log Format, also
    as .gz. It is read on this computer. Visitors’ addresses are not kept.
  </p>
  {#if blogs.length === 0}
    <p role="alert">
      No blog is connected. <a class="underline" href="/places">Connect your blog</a> first, so that its
      posts are known.
    </p>
  {/if}
  {#if blogs.length > 1}
    <label class="flex flex-col gap-1"
      >Blog
      <select class="field" bind:value={chosen}>
        {#each blogs as { id, title } (id)}<option value={id}>{title}</option>{/each}
      </select></label
    >
  {/if}
  <label class="flex flex-col gap-1"
    >Your own addresses, not counted
    <input class="field" bind:value={addresses} placeholder="203.0.113.7, 2001:db8::/32" />
    {#if wrong.length > 0}<span>Not an address: {wrong.join(', ')}</span>{/if}</label
  >
  <label class="flex flex-col gap-1"
    >Words in your own visits, not counted
    <input class="field" bind:value={marks} placeholder="me=1" />
    <span class="text-quiet"
      >Anything that only your own visits have in the page address or the browser’s name.</span
    ></label
  >
  {#if isNoLog}
    <p role="alert">
      “{file?.name}” is not an access log: none of its {plural(counts?.lines ?? 0, 'line', 'lines')} can
      be read. Nothing was imported.
    </p>
  {:else if counts && found}
    <div role="status" class="flex flex-col gap-1 border-y border-line py-2">
      <p class="font-semibold">
        {plural(counts.visits, 'visit', 'visits')} to {plural(
          new Set(found.findings.visits.map(({ page }) => page)).size,
          'post',
          'posts'
        )}{#if found.findings.span}, {formatDateTime(
            new Date(found.findings.span.from).toISOString()
          )} to {formatDateTime(new Date(found.findings.span.to).toISOString())}{/if}
      </p>
      {#if leftOut.length > 0}
        <p>Left out of {plural(counts.lines, 'line', 'lines')}:</p>
        <ul class="pl-4">
          {#each leftOut as [count, what] (what)}
            <li class="list-disc">{count.toLocaleString('en')} {what}</li>
          {/each}
        </ul>
      {/if}
    </div>
  {/if}
  {#if problem}<ProblemNote {problem} />{/if}
  {#if said}<p role="status">{said}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <label
      class="btn cursor-pointer btn-sm focus-within:outline-2 focus-within:outline-offset-2 {counts
        ? 'plain'
        : 'strong'}"
      >{file ? 'Choose another file…' : 'Choose the log…'}
      <input
        class="sr-only"
        type="file"
        accept=".log,.gz,.txt,text/plain,application/gzip"
        onchange={choose}
        disabled={isReading || !blog}
      /></label
    >
    {#if counts && counts.visits > 0}
      <button class="strong btn btn-sm" onclick={add}
        >Add {plural(counts.visits, 'visit', 'visits')}</button
      >
    {/if}
    {#if file && !isReading}
      <button class="plain btn btn-sm" onclick={read}>Read again</button>
    {/if}
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
