<script lang="ts">
  import { itemsOf } from '$lib/data/items.ts';
  import type { Desk } from './deskState.svelte.ts';

  let { desk }: { desk: Desk } = $props();
  let form = $state<HTMLFormElement>();

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
    const timer = setTimeout(async () => {
      const page = await pattern();
      (element.elements.namedItem('page') as HTMLInputElement).value = page;
      (element.elements.namedItem('post') as HTMLInputElement).value = JSON.stringify(shown);
      element.submit();
    }, 150);
    return () => clearTimeout(timer);
  });
</script>

{#if desk.blog}
  <p class="pb-2 text-sm text-quiet">
    The page of {desk.blog.title} with this post on it: its own layout around the very HTML that is sent.
  </p>
  <form bind:this={form} method="post" action="/preview" target="as-published" hidden>
    <input name="page" /><input name="post" />
  </form>
  <iframe
    name="as-published"
    title="Preview of the post"
    class="min-h-[36rem] w-full flex-1 rounded-container border border-edge bg-white"
  ></iframe>
{:else}
  <p class="text-sm">Connect a blog to see the post on its pages.</p>
{/if}
