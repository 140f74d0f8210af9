import slugify from '@sindresorhus/slugify';
import type { ArchivePart } from '$lib/core/archive/write.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import { writeWebVtt } from '$lib/core/captions/webvtt.ts';
import { readHtml } from '$lib/core/markup/html.ts';
import { writeMarkdown } from '$lib/core/markup/markdown.ts';
import type { Item } from '$lib/core/model/item.ts';
import { db } from '../db.ts';
import { inBatches } from './batches.ts';
import { portableRows } from './rows.ts';

/** Items that are read at a time. */
const BATCH = 50;
/** Letters of a title that are taken into the name of a file. */
const LONGEST_NAME = 60;

/** The name of a copy: its day, its title, and the beginning of its id, as two may be called the same. */
function copyName({ id, published, title }: Pick<Item, 'id' | 'published' | 'title'>): string {
  const day = /^\d{4}-\d\d-\d\d/.exec(published ?? '')?.[0] ?? 'undated';
  const words = slugify(title.slice(0, LONGEST_NAME));
  return `${day}-${words || 'untitled'}-${id.replace(/[^\w-]/g, '').slice(0, 8)}`;
}

/** Posts as Markdown and as HTML, captions as WebVTT: for other programs, and for reading. */
export async function* readableCopies(): AsyncGenerator<ArchivePart> {
  const given = new Set<string>();
  /** The number of the next copy that would be called the same. */
  const next = new Map<string, number>();
  for await (const rows of inBatches(portableRows('items'), BATCH)) {
    const items = rows as Item[];
    const ids = items.map(({ id }) => id);
    const [bodies, details] = await Promise.all([db.bodies.bulkGet(ids), db.details.bulkGet(ids)]);
    for (const [i, item] of items.entries()) {
      const wanted = copyName(item);
      let number = next.get(wanted) ?? 1;
      let name = number === 1 ? wanted : `${wanted}-${number}`;
      while (given.has(name)) name = `${wanted}-${++number}`;
      next.set(wanted, number + 1);
      given.add(name);
      if (item.kind === 'post') yield* copiesOfPost(item, bodies[i]?.html ?? '', name);
      else yield* copyOfCaptions(details[i]?.cues ?? [], name);
    }
  }
}

function* copiesOfPost(post: Item, html: string, name: string): Generator<ArchivePart> {
  if (!html) return;
  const { title, url, published: date, author, tags } = post;
  yield { name: `posts/${name}.html`, content: html };
  let markdown: string;
  try {
    markdown = writeMarkdown({ title, url, date, author, tags }, readHtml(html));
  } catch {
    // What is nested without end has its HTML.
    return;
  }
  yield { name: `posts/${name}.md`, content: markdown };
}

function* copyOfCaptions(cues: readonly Cue[], name: string): Generator<ArchivePart> {
  if (cues.length > 0) yield { name: `captions/${name}.vtt`, content: writeWebVtt(cues) };
}
