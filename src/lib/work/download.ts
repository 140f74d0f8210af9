import type { ComposedPost } from '$lib/core/article/template/compose.ts';
import { chapterFields, type Chapter } from '$lib/core/chapters/chapter.ts';

/** A post as Markdown with YAML front matter. */
export async function toMarkdown(
  post: ComposedPost,
  chapters: readonly Chapter[]
): Promise<string> {
  const [{ writeMarkdown }, { readHtml }] = await Promise.all([
    import('$lib/core/markup/markdown.ts'),
    import('$lib/core/markup/html.ts')
  ]);
  const { title, slug, excerpt, author, categories, tags, date } = post;
  const front = {
    title,
    slug,
    excerpt,
    author,
    ...(date ? { date } : {}),
    ...(categories.length > 0 ? { categories } : {}),
    ...(tags.length > 0 ? { tags } : {}),
    ...(chapters.length > 0 ? { chapters: chapterFields(chapters) } : {})
  };
  return writeMarkdown(front, readHtml(post.html));
}

/** Gives the user a file. */
export function download(name: string, type: string, text: string): void {
  downloadBlob(name, new Blob([text], { type }));
}

export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  document.body.append(link);
  link.click();
  link.remove();
  // A slow machine may come to read it only after a while.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
