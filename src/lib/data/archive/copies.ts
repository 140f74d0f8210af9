import slugify from '@sindresorhus/slugify';
import type { ArchivePart } from '$lib/core/archive/write.ts';
import { writeWebVtt } from '$lib/core/captions/webvtt.ts';
import { chapterFields } from '$lib/core/chapters/chapter.ts';
import { readHtml } from '$lib/core/markup/html.ts';
import { writeMarkdown } from '$lib/core/markup/markdown.ts';
import type { Item } from '$lib/core/model/item.ts';
import { db } from '../db.ts';
import { portableRows } from './rows.ts';

/** Letters of a title that are taken into the name of a file. */
const LONGEST_NAME = 60;

/** The name of a copy: its day, its title, and enough of its id for no two to be the same. */
function copyName({ id, published, title }: Pick<Item, 'id' | 'published' | 'title'>): string {
  const day = /^\d{4}-\d\d-\d\d/.exec(published ?? '')?.[0] ?? 'undated';
  const words = slugify(title.slice(0, LONGEST_NAME));
  return `${day}-${words || 'untitled'}-${id.replace(/[^\w-]/g, '').slice(0, 8)}`;
}

async function* once(text: string): AsyncGenerator<string> {
  yield text;
}

/** Posts as Markdown and as HTML, captions as WebVTT: for other programs, and for reading. */
export async function* readableCopies(): AsyncGenerator<ArchivePart> {
  for await (const row of portableRows('items')) {
    const item = row as Item;
    yield* item.kind === 'post' ? copiesOfPost(item) : copiesOfVideo(item);
  }
}

async function* copiesOfPost(post: Item): AsyncGenerator<ArchivePart> {
  const html = (await db.bodies.get(post.id))?.html;
  if (!html) return;
  const { title, url, published: date, author, tags } = post;
  const name = `posts/${copyName(post)}`;
  yield { name: `${name}.html`, content: once(html) };
  let markdown: string;
  try {
    markdown = writeMarkdown({ title, url, date, author, tags }, readHtml(html));
  } catch {
    // What is nested without end has its HTML.
    return;
  }
  yield { name: `${name}.md`, content: once(markdown) };
}

async function* copiesOfVideo(video: Item): AsyncGenerator<ArchivePart> {
  const details = await db.details.get(video.id);
  if (!details || details.cues.length === 0) return;
  const name = `captions/${copyName(video)}`;
  yield { name: `${name}.vtt`, content: once(writeWebVtt(details.cues)) };
  if (details.chapters.length === 0) return;
  const chapters = JSON.stringify(chapterFields(details.chapters), null, 2);
  yield { name: `${name}.chapters.json`, content: once(`${chapters}\n`) };
}
