<script lang="ts">
  import { readMailbox } from '$lib/data/mailbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import { dateTimeWords } from '$lib/ui/words.ts';
  import { unlinkMailbox } from '$lib/work/mailbox.ts';
  import { addByHand } from '$lib/work/networks.ts';

  const mailbox = live(() => readMailbox);
  const empty = { title: '', url: '', text: 1000, hashtags: 0, isPictured: false };
  let place = $state({ ...empty });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const { isPictured, ...fields } = $state.snapshot(place);
    await addByHand({
      ...fields,
      title: fields.title.trim(),
      picture: isPictured ? 'required' : 'optional',
      isUsual: true
    });
    deck.say(`${fields.title.trim()} is added. What goes there is handed to you.`);
    place = { ...empty };
  }
</script>

<section aria-labelledby="by-hand" class="flex flex-col gap-3">
  <h2 id="by-hand" class="font-semibold">What you post by hand</h2>
  {#if mailbox.value}
    {@const linked = mailbox.value}
    <p class="flex flex-wrap items-center gap-x-3 text-sm">
      <span>
        Sent to <a href={linked.url} target="_blank" rel="noreferrer" class="underline"
          >{linked.name}</a
        >
        <span class="times text-quiet">{linked.address}</span>, linked {dateTimeWords(
          linked.linked
        )}.
      </span>
      <span>Key <span class="times" aria-label="hidden">••••••••</span></span>
      <button class="bare btn btn-sm" onclick={() => unlinkMailbox(linked)}
        >Unlink the mailbox</button
      >
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
  {:else}
    <p class="text-sm text-quiet">
      For places that let no program post: link your mailbox above, by the address of its page. You
      then get a message with the file, the text and a page for your telephone.
    </p>
  {/if}
</section>
