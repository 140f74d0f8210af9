<script lang="ts">
  import type { Network } from '$lib/core/model/network.ts';
  import { patchNetwork } from '$lib/data/networks.ts';
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { formatDateTime } from '$lib/ui/messages.ts';
  import {
    checkNetwork,
    setNetworkKey,
    forgetNetworkKey,
    disconnectNetwork
  } from '$lib/work/networks.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';
  import KeyForm from './KeyForm.svelte';

  let { network }: { network: Network } = $props();
  const { format } = new Intl.NumberFormat('en');
  const takes = $derived.by(() => {
    const { text, picture, hashtags, hasButton, poll, hasQuiz, hasThreads, clip } = network.limits;
    return [
      `Texts of up to ${format(text)} characters`,
      picture === 'required' ? 'A picture with each' : picture === 'optional' ? 'A picture' : '',
      hashtags > 0 ? `Up to ${hashtags} hashtags` : '',
      hasButton ? 'A button with a link' : '',
      poll ? `Polls of up to ${poll.most} options, ${poll.option} characters each` : '',
      hasQuiz ? 'Quizzes' : '',
      hasThreads ? 'Threads of several updates' : '',
      clip && !network.isByHand ? `Clips of up to ${clip.seconds} seconds` : ''
    ].filter(Boolean);
  });

  async function check() {
    const done = await attempt(() =>
      runTask(`Checking ${network.title}`, (signal) => checkNetwork(network, signal))
    );
    if (!done.problem) deck.say(`${network.title} is connected and works.`);
  }
</script>

<article
  aria-label={network.title}
  class="flex flex-col gap-3 rounded-container border border-l-4 border-line border-l-edge bg-sheet p-4"
>
  <header>
    <p class="text-sm text-quiet">{network.isByHand ? 'Posted by hand' : 'Network'}</p>
    <h3 class="text-lg font-semibold">{network.title}</h3>
    {#if !network.isByHand}
      <p class="text-sm">{network.about} · checked {formatDateTime(network.checked)}</p>
    {/if}
    <p class="text-sm">
      <a href={network.url} target="_blank" rel="noreferrer" class="break-all underline"
        >{network.url}</a
      >
    </p>
  </header>
  {#if network.problem}
    <ProblemNote problem={network.problem} item={network.title}>
      {#snippet actions()}<button class="plain btn btn-sm" onclick={check}>Check again</button
        >{/snippet}
    </ProblemNote>
  {/if}
  <div class="text-sm">
    <h4 class="font-semibold">What it takes</h4>
    <ul class="list-disc pl-5">
      {#each takes as line (line)}<li>{line}</li>{/each}
    </ul>
    {#if network.allowance}
      <p>
        {format(network.allowance.most)} a {network.allowance.per}; {format(network.allowance.left)} were
        left when it was checked.
      </p>
    {/if}
  </div>
  {#if network.isByHand}
    <p class="text-sm">No key is needed: you post there by hand.</p>
  {:else}
    <KeyForm
      place={network}
      goesTo={[network.outbox, network.uploadMedia, network.tokenEndpoint]}
      purpose="Key for publishing at"
      help="Made at the network, for programs. It stays in this browser and is sent there only."
      give={(key, signal) => setNetworkKey(network, key, signal)}
      take={() => forgetNetworkKey(network)}
    />
  {/if}
  <label class="flex items-center gap-2 text-sm">
    <input
      type="checkbox"
      checked={network.isUsual}
      onchange={(event) => patchNetwork(network.id, { isUsual: event.currentTarget.checked })}
    />
    Selected by default
  </label>
  <footer class="flex flex-wrap gap-2">
    {#if !network.isByHand}
      <button class="plain btn btn-sm" onclick={check}
        >Check connection<span class="sr-only"> {network.title}</span></button
      >
    {/if}
    <ConfirmButton
      label="Disconnect…"
      of={network.title}
      confirm="Disconnect (nothing is deleted there)"
      keep="Keep it"
      onconfirm={() => disconnectNetwork(network)}
    />
  </footer>
</article>
