<script lang="ts">
  import type { Mailbox } from '$lib/core/model/mailbox.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { connectMailbox } from '$lib/work/mailbox.ts';
  import { sendOrigins } from '$lib/work/start.ts';

  let { mailbox, ondone }: { mailbox: Mailbox; ondone: () => void } = $props();
  let key = $state('');
  const id = $props.id();

  async function link(event: SubmitEvent) {
    event.preventDefault();
    await connectMailbox(mailbox, key);
    key = '';
    deck.say(`${mailbox.name} is linked.`);
    // Messages with files go there straight from this page.
    if (!(await sendOrigins())) location.reload();
    ondone();
  }
</script>

<section
  aria-label="What was found"
  class="flex flex-col gap-3 rounded-container border border-l-4 border-edge bg-sheet p-4"
>
  <div>
    <p class="text-sm text-quiet">A mailbox</p>
    <h2 class="text-lg font-semibold">{mailbox.name}</h2>
    <p class="figures text-sm break-all text-quiet">{mailbox.address}</p>
    <p class="text-sm">
      Posting by hand is sent here, with a page for your telephone. Your answers are read from it;
      nothing else is.
    </p>
  </div>
  <form class="flex flex-col gap-1" onsubmit={link}>
    <label class="text-sm font-semibold" for={id}>Key for reading {mailbox.name}</label>
    <div class="flex flex-wrap gap-2">
      <input
        {id}
        class="field min-w-0 grow basis-48"
        type="password"
        autocomplete="off"
        bind:value={key}
      />
      <button class="strong btn btn-sm" disabled={key.trim() === ''}>Connect this mailbox</button>
      <button type="button" class="bare btn btn-sm" onclick={ondone}>Cancel</button>
    </div>
  </form>
</section>
