<script lang="ts">
  import type { Problem } from '$lib/core/model/place.ts';
  import type { Twin } from '$lib/core/model/twin.ts';
  import { acceptTitles } from '$lib/data/decisions.ts';
  import { isPost } from '$lib/core/delivery/payload.ts';
  import { getBody, getItem } from '$lib/data/items.ts';
  import { getEntry } from '$lib/data/outbox.ts';
  import { settleTheirs } from '$lib/delivery/deliverEntry.ts';
  import { live } from '$lib/ui/live.svelte.ts';
  import TheirVersion from '$lib/ui/TheirVersion.svelte';
  import { note } from '$lib/data/journal.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { retitlePost } from '$lib/delivery/changes.ts';
  import { attempt, runTask } from '$lib/work/tasks.svelte.ts';

  let { twin, onclose }: { twin: Twin; onclose: () => void } = $props();
  let dialog = $state<HTMLDialogElement>();
  let problem = $state<Problem | null>(null);
  const differences = $derived(twin.reason.kind === 'differs' ? twin.reason.differences : []);

  $effect(() => dialog?.showModal());

  /** Of a post that was changed at the blog: what was last sent, and what stands there. */
  const versions = live(() => {
    const { post, reason } = twin;
    return async () => {
      if (reason.kind !== 'post-changed' || !post) return null;
      const [item, html] = await Promise.all([getItem(post.id), getBody(post.id)]);
      const entry = item?.origin ? await getEntry(item.origin) : undefined;
      if (!item || !entry) return null;
      const sent = entry.sent && isPost(entry.sent) ? entry.sent : null;
      const status = item.visibility === 'draft' ? ('draft' as const) : ('public' as const);
      return { key: entry.key, sent, theirs: { title: item.title, html, status } };
    };
  });
  async function keepTheirs() {
    const { key } = versions.value ?? {};
    if (key) await settleTheirs(key, 'keep');
    deck.say('The post stays as it is at the blog.');
    dialog?.close();
  }

  async function take() {
    const video = twin.video && (await getItem(twin.video.id));
    const post = twin.post && (await getItem(twin.post.id));
    if (!video || !post) return;
    const done = await attempt(() =>
      runTask(`Retitling “${post.title}”`, () => retitlePost(video, post))
    );
    problem = done.problem;
    if (problem) return;
    deck.say('The post now has the title of the video.');
    dialog?.close();
  }

  async function accept() {
    if (!twin.video || !twin.post) return;
    const titles = { video: twin.video.title, post: twin.post.title };
    await acceptTitles(twin.video.id, twin.post.id, titles, new Date().toISOString());
    await note({ what: 'accepted', itemId: twin.video.id, title: twin.video.title });
    dialog?.close();
  }
</script>

<dialog
  bind:this={dialog}
  {onclose}
  aria-labelledby="drift-title"
  class="m-auto flex w-[34rem] max-w-[calc(100vw-1rem)] flex-col gap-4 rounded-container border border-edge bg-sheet p-4 text-ink shadow-2xl backdrop:bg-black/40"
>
  <h2 id="drift-title" class="text-lg font-semibold">What has drifted</h2>
  {#if versions.value}
    {@const { sent, theirs } = versions.value}
    <TheirVersion {theirs} ours={sent} onkeep={keepTheirs} />
    <p class="text-sm text-quiet">
      To publish your version instead, open the desk and update the post: both are shown once more
      before anything is overwritten.
    </p>
  {/if}
  {#each differences as { kind, video, post } (kind)}
    <dl class="grid grid-cols-[5rem_1fr] gap-x-3 gap-y-2">
      <dt class="border-l-4 border-video pl-2 text-sm">Video</dt>
      <dd class="font-semibold">{video}</dd>
      <dt class="border-l-4 border-post pl-2 text-sm">Post</dt>
      <dd class="font-semibold">{post}</dd>
    </dl>
  {/each}
  {#if differences.length > 0}<p class="text-sm text-quiet">
      The video was retitled after the post was written. Only the title changes; the text of the
      post stays as it is.
    </p>{/if}
  {#if problem}<ProblemNote {problem} />{/if}
  <div class="flex flex-wrap gap-2">
    {#if differences.length > 0}
      <button class="strong btn btn-sm" onclick={take}>Give the post this title</button>
      <button class="plain btn btn-sm" onclick={accept}>Keep both titles</button>
    {:else if twin.video}
      <a class="plain btn btn-sm" href="/desk/{twin.video.id}">Open the desk</a>
    {/if}
    <button class="bare ml-auto btn btn-sm" onclick={() => dialog?.close()}>Close</button>
  </div>
</dialog>
