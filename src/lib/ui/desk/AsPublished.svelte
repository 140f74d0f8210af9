<script lang="ts">
  import { itemsOf } from '$lib/data/items.ts';
  import type { Problem } from '$lib/core/model/place.ts';
  import { readAddress } from '$lib/places/wire.ts';
  import ProblemNote from '$lib/ui/ProblemNote.svelte';
  import { attempt } from '$lib/work/tasks.svelte.ts';
  import { talkWorker } from '$lib/workers/talk.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  let form = $state<HTMLFormElement>();
  let problem = $state.raw<Problem | null>(null);

  /** The latest public post of the blog: its page is the pattern. */
  async function pattern(): Promise<string> {
    const { blog } = desk;
    if (!blog) return '';
    const posts = await itemsOf([blog.id]);
    const newest = posts
      .filter((p) => p.kind === 'post' && p.visibility === 'public')
      .sort((a, b) => (b.published ?? '').localeCompare(a.published ?? ''));
    return newest[0]?.url ?? blog.url;
  }

  $effect(() => {
    const { post } = desk;
    if (!form || !post) return;
    const element = form;
    const shown = {
      title: post.title,
      html: post.html,
      author: post.author,
      published: post.date ?? desk.since,
      categories: [...post.categories, ...post.tags],
      picture: post.picture && { url: post.picture.url, alt: post.picture.alt }
    };
    const stop = new AbortController();
    const timer = setTimeout(async () => {
      const made = await attempt(async () => {
        const page = await readAddress(await pattern(), stop.signal);
        return { blog: page.url, page: await talkWorker().showAsPublished(page, shown) };
      });
      if (stop.signal.aborted) return;
      problem = made.problem;
      if (!made.value) return;
      for (const [name, value] of Object.entries(made.value))
        (element.elements.namedItem(name) as HTMLInputElement | HTMLTextAreaElement).value = value;
      element.submit();
    }, 150);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  });
</script>

{#if desk.blog}
  <p class="pb-2 text-sm text-quiet">
    The page of {desk.blog.title} with this post on it: its own layout around the very HTML that is sent.
  </p>
  <form bind:this={form} method="post" action="/preview" target="as-published" hidden>
    <textarea name="page"></textarea><input name="blog" />
  </form>
  {#if problem}<ProblemNote {problem} />{/if}
  <iframe
    name="as-published"
    title="Preview of the post"
    class="min-h-[36rem] w-full flex-1 rounded-container border border-edge bg-white"
  ></iframe>
{:else}
  <p class="text-sm">Connect a blog to see the post on its pages.</p>
{/if}
