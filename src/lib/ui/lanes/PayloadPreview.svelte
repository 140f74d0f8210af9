<script lang="ts">
  import { isPost, isUpdate, isVideo, type Payload } from '$lib/core/delivery/payload.ts';
  import { getDetails } from '$lib/data/details.ts';
  import TimeCode from '$lib/ui/TimeCode.svelte';
  import { keptFile } from '$lib/data/media.ts';
  import { readRender } from '$lib/data/narrations.ts';
  import { getNetwork } from '$lib/data/networks.ts';
  import SafeHtml from '$lib/ui/desk/SafeHtml.svelte';
  import Preview from '$lib/ui/updates/Preview.svelte';
  import { live } from '$lib/ui/live.svelte.ts';
  import { readFile } from '$lib/video/files.ts';

  interface Props {
    payload: Payload;
    itemId: string;
    placeId: string;
    /** Of the post, for those who cannot see it. */
    label: string;
  }
  let { payload, itemId, placeId, label }: Props = $props();
  const network = live(() => {
    const id = placeId;
    return () => getNetwork(id);
  });
  /** Of a post: the captions that it was drawn from. */
  const source = live(() => {
    const id = isPost(payload) ? itemId : '';
    return async () => {
      const details = id ? await getDetails(id) : null;
      return details && details.cues.length > 0 ? details : null;
    };
  });
  /** Captions to a stretch at the least; it goes on to the end of its sentence, or to twice as many. */
  const STRETCH = 8;
  const stretches = $derived.by(() => {
    const found: { start: number; text: string; count: number }[] = [];
    for (const { start, text } of source.value?.cues ?? []) {
      const last = found.at(-1);
      const isFull =
        !last ||
        last.count >= 2 * STRETCH ||
        (last.count >= STRETCH && /[.!?…]["”’)]?$/.test(last.text));
      const line = text.replaceAll('\n', ' ');
      if (isFull) found.push({ start, text: line, count: 1 });
      else {
        last.text += ` ${line}`;
        last.count++;
      }
    }
    return found;
  });
  /** Where the file that goes with it can be seen from this page. */
  let file = $state('');
  const kept = $derived(
    isVideo(payload) ? '' : isUpdate(payload) ? ((payload.clip ?? payload.picture)?.url ?? '') : ''
  );

  $effect(() => {
    const [name, isOfVideo, id] = [kept, isVideo(payload), itemId];
    let isGone = false;
    void (async () => {
      const render = isOfVideo ? await readRender(id) : null;
      const blob = render ? await readFile(render.file) : name && (await keptFile(name));
      if (blob && !isGone) file = URL.createObjectURL(blob);
    })();
    return () => {
      isGone = true;
      URL.revokeObjectURL(file);
      file = '';
    };
  });
</script>

{#if isUpdate(payload)}
  {#if network.value}
    <div class="max-w-xl">
      <Preview
        {payload}
        limits={network.value.limits}
        isCutShort={false}
        addressOf={(url) => (url === kept ? file || url : url)}
      />
      {#if payload.form === 'quiz'}
        <p class="pt-1 text-quiet">
          Right: {payload.options.find((o) => o.right)?.text}. Shown afterwards: {payload.why}
        </p>
      {/if}
    </div>
  {/if}
{:else if isVideo(payload)}
  <div class="flex flex-wrap gap-4">
    {#if file}
      <!-- svelte-ignore a11y_media_has_caption -->
      <video
        src={file}
        controls
        class="max-h-64 max-w-full bg-black"
        aria-label="The finished video"
      ></video>
    {/if}
    <div class="min-w-0 flex-1 basis-64">
      <p class="font-semibold">{payload.title}</p>
      <p class="break-words whitespace-pre-line">{payload.description}</p>
      {#if payload.tags.length > 0}<p class="text-quiet">{payload.tags.join(', ')}</p>{/if}
    </div>
  </div>
{:else if isPost(payload)}
  <p class="font-semibold">{payload.title}</p>
  <div class="grid gap-4 lg:grid-cols-2">
    <SafeHtml html={payload.html} {label} language="" isTall />
    {#if source.value}
      <div>
        <h3 class="pb-1 font-semibold">What is said in the video</h3>
        <!-- It scrolls, so it takes the focus. -->
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <div
          class="reading flex max-h-[66vh] flex-col gap-2 overflow-y-auto text-sm text-quiet"
          role="group"
          aria-label="What is said in the video"
          tabindex="0"
        >
          {#each stretches as { start, text } (start)}
            <p><TimeCode seconds={start} />&ensp;{text}</p>
          {/each}
        </div>
      </div>
    {/if}
  </div>
{/if}
