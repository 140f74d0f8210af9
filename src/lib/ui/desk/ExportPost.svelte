<script lang="ts">
  import { writeSrt } from '$lib/core/captions/srt.ts';
  import { writeWebVtt } from '$lib/core/captions/webvtt.ts';
  import {
    chapterLinks,
    chaptersJson,
    chaptersVtt,
    clipsJsonLd,
    descriptionList
  } from '$lib/core/chapters/formats.ts';
  import { htmlText } from '$lib/core/text/html.ts';
  import { copyText } from '$lib/ui/copyText.ts';
  import { deck } from '$lib/ui/deck.svelte.ts';
  import { download, toMarkdown } from '$lib/work/download.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  const name = $derived(desk.post?.slug || 'post');
  const hasTalk = $derived(desk.talk !== null);
  const hasChapters = $derived(desk.chapters.length > 0);
  const seekTo = $derived(desk.details?.seekTo ?? '');

  async function copy(what: string, text: string) {
    if (await copyText(text)) deck.say(`${what} on the clipboard.`);
  }
  const markdown = () => (desk.post ? toMarkdown(desk.post, desk.chapters) : Promise.resolve(''));
  const clips = () =>
    clipsJsonLd(
      { title: desk.video?.title ?? '', url: desk.video?.url ?? '' },
      desk.chapters,
      desk.duration,
      seekTo
    );
</script>

{#snippet row(label: string, act: () => unknown, enabled = true)}
  <button class="plain btn btn-sm" disabled={!enabled} onclick={act}>{label}</button>
{/snippet}

<details class="text-sm">
  <summary class="font-semibold">Export</summary>
  <div class="flex flex-col gap-3 py-2">
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="The post">
      <span class="basis-full text-quiet">The post</span>
      {@render row('Markdown file', async () =>
        download(`${name}.md`, 'text/markdown', await markdown())
      )}
      {@render row('HTML file', () => download(`${name}.html`, 'text/html', desk.post?.html ?? ''))}
      {@render row('Copy Markdown', async () => copy('The Markdown is', await markdown()))}
      {@render row('Copy HTML', () => copy('The HTML is', desk.post?.html ?? ''))}
      {@render row('Copy text', () => copy('The text is', htmlText(desk.post?.html ?? '')))}
    </div>
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="Corrected captions">
      <span class="basis-full text-quiet">Corrected captions</span>
      {@render row(
        'WebVTT file',
        async () => download(`${name}.vtt`, 'text/vtt', writeWebVtt(await desk.mendedCaptions())),
        hasTalk
      )}
      {@render row(
        'SRT file',
        async () =>
          download(`${name}.srt`, 'application/x-subrip', writeSrt(await desk.mendedCaptions())),
        hasTalk
      )}
    </div>
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="The chapters">
      <span class="basis-full text-quiet">The chapters</span>
      {@render row(
        'Copy for a description',
        () => copy('The chapter list is', descriptionList(desk.chapters)),
        hasChapters
      )}
      {@render row(
        'Copy links',
        () => copy('The links are', chapterLinks(desk.chapters, seekTo)),
        hasChapters && seekTo !== ''
      )}
      {@render row(
        'WebVTT chapters',
        () =>
          download(`${name}.chapters.vtt`, 'text/vtt', chaptersVtt(desk.chapters, desk.duration)),
        hasChapters
      )}
      {@render row(
        'JSON chapters',
        () =>
          download(
            `${name}.chapters.json`,
            'application/json',
            chaptersJson(desk.chapters, desk.duration)
          ),
        hasChapters
      )}
      {@render row('Copy JSON-LD clips', () => copy('The clips are', clips()), hasChapters)}
    </div>
  </div>
</details>
