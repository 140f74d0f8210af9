<script lang="ts">
  import ConfirmButton from '$lib/ui/ConfirmButton.svelte';
  import { readMailbox } from '$lib/data/mailbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { formatDateTime } from '$lib/ui/messages.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { disconnectMailbox } from '$lib/work/mailbox.ts';
  import { addByHand } from '$lib/work/networks.ts';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import type { Problem } from '$lib/core/model/place.ts';

  const mailbox = live(() => readMailbox);
  const empty = { title: '', url: '', text: 1000, hashtags: 0, isPictured: false };
  let place = $state({ ...empty });
  let problem = $state.raw<Problem | null>(null);

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const { isPictured, ...fields } = $state.snapshot(place);
    const done = await attempt(() =>
      addByHand({
        ...fields,
        title: fields.title.trim(),
        picture: isPictured ? 'required' : 'optional',
        isUsual: true
      })
    );
    problem = done.problem;
    if (problem) return;
    deck.say(`${fields.title.trim()} is added. What goes there is handed to you to post by hand.`);
    place = { ...empty };
  }
</script>

<section aria-labelledby="by-hand" class="flex flex-col gap-3">
  <h2 id="by-hand" class="font-semibold">Posting by hand</h2>
  {#if mailbox.value}
    {@const linked = mailbox.value}
    <p class="flex flex-wrap items-center gap-x-3 text-sm">
      <span>
        Sent to <a href={linked.url} target="_blank" rel="noreferrer" class="underline"
          >{linked.name}</a
        >
        <span class="figures text-quiet">{linked.address}</span>, connected {formatDateTime(
          linked.linked
        )}.
      </span>
      <span>Key <span class="figures" aria-label="hidden">••••••••</span></span>
      <ConfirmButton
        label="Disconnect the mailbox…"
        confirm="Disconnect (nothing is deleted there)"
        keep="Keep it"
        onconfirm={() => disconnectMailbox(linked)}
      />
    </p>
    <form class="flex flex-wrap items-end gap-3 text-sm" onsubmit={add}>
      <label class="flex flex-col gap-1"
        >Name of the place <input class="field" required bind:value={place.title} /></label
      >
      <label class="flex min-w-0 flex-1 basis-56 flex-col gap-1"
        >Where a post is begun there <input
          class="field"
          type="url"
          pattern="https?://.+"
          required
          placeholder="https://"
          bind:value={place.url}
        /></label
      >
      <label class="flex flex-col gap-1"
        >Longest text <input
          class="field w-24"
          type="number"
          min="20"
          max="100000"
          required
          bind:value={place.text}
        /></label
      >
      <label class="flex flex-col gap-1"
        >Hashtags at most <input
          class="field w-24"
          type="number"
          min="0"
          max="60"
          required
          bind:value={place.hashtags}
        /></label
      >
      <label class="flex items-center gap-2 py-1.5"
        ><input type="checkbox" bind:checked={place.isPictured} /> Always with a picture</label
      >
      <button class="plain btn btn-sm">Add this place</button>
    </form>
    {#if problem}<ProblemNote {problem} />{/if}
  {:else}
    <p class="text-sm text-quiet">
      For places that no application can post to: connect your mailbox above, by the address of its
      page. You then get a message with the file, the text and a page for your telephone.
    </p>
  {/if}
</section>
