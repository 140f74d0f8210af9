import { stringify } from 'yaml';
import type { ComposedPost } from '$lib/core/article/template/compose.ts';
import { timeCode, type Chapter } from '$lib/core/chapters/chapter.ts';

/** A post as Markdown with YAML front matter. */
export async function toMarkdown(
  post: ComposedPost,
  chapters: readonly Chapter[]
): Promise<string> {
  const { default: TurndownService } = await import('turndown');
  const turndown = new TurndownService({
    headingStyle: 'atx',
    codeBlockStyle: 'fenced',
    bulletListMarker: '-',
    emDelimiter: '*'
  });
  // Players and what is folded away have no Markdown; they stand as the HTML they are.
  turndown.keep(['iframe', 'details', 'figure']);
  turndown.addRule('origin', { filter: (node) => node.nodeName === 'DATA', replacement: () => '' });
  const { title, slug, excerpt, author, categories, tags, date } = post;
  const front = stringify({
    title,
    slug,
    excerpt,
    author,
    ...(date ? { date } : {}),
    ...(categories.length > 0 ? { categories } : {}),
    ...(tags.length > 0 ? { tags } : {}),
    ...(chapters.length > 0
      ? { chapters: chapters.map((c) => ({ at: timeCode(c.start), title: c.title })) }
      : {})
  });
  return `---\n${front}---\n\n${turndown.turndown(post.html)}\n`;
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
