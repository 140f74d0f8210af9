import type { Paragraph } from '../../text/paragraphs.ts';
import { timeCode, type Chapter } from '../../chapters/chapter.ts';
import { playerHtml } from './player.ts';
import { escapeHtml, htmlText } from '../../text/html.ts';
import { largestPicture, type Item, type Picture } from '../../model/item.ts';
import { originMarker } from '../../model/origin.ts';
import { textToHtml, tidyDescription } from './description.ts';
import type { Article } from '../extract/article.ts';
import { fieldsOf, type Fields } from './fields.ts';
import { slugOf } from './slug.ts';
import { fill, type FillProblem } from './fill.ts';
import { bodyHtml, listHtml, quoteHtml, sentencesHtml, withoutMarks } from './render.ts';
import type { Block, BlockKind, Template } from './template.ts';

/** All that a post is made from. */
export interface Material {
  video: Item;
  description: string;
  /** What is said, and what was drawn from it; empty and null where there are no captions. */
  paragraphs: readonly Paragraph[];
  article: Article | null;
  chapters: readonly Chapter[];
  /** Address of the video with `{seek_to_second_number}` in it, or empty. */
  seekTo: string;
  channel: { title: string; url: string };
  blog: { title: string; url: string };
  /** ISO 8601. */
  now: string;
  key: string;
}

/** Why a block that is switched on has nothing in it. */
export type EmptyReason =
  | 'no-embed'
  | 'no-picture'
  | 'no-description'
  | 'no-chapters'
  | 'no-captions'
  | 'no-text'
  | 'no-fit';

export interface Part {
  blockId: string;
  kind: BlockKind;
  html: string;
  empty: EmptyReason | null;
  problems: FillProblem[];
}

export interface ComposedPost {
  title: string;
  slug: string;
  excerpt: string;
  author: string;
  categories: string[];
  tags: string[];
  /** ISO 8601; null is the moment of placing. */
  date: string | null;
  comments: 'open' | 'closed';
  picture: (Picture & { alt: string }) | null;
  /** As it goes out. */
  html: string;
  /** The same with the seconds that each block comes from, to be edited. */
  marked: string;
  parts: Part[];
  /** Problems of the title and the other fields beside the blocks. */
  problems: { where: 'title' | 'slug' | 'excerpt' | 'author'; problem: FillProblem }[];
}

type Content = Pick<Part, 'html' | 'empty'> & Partial<Pick<Part, 'problems'>>;
const WIDTH = 640;

/** Makes a post from a video by a template. Nothing is invented: text comes from template or video. */
export function compose(template: Template, material: Material): ComposedPost {
  const { video, now } = material;
  const { paragraphs, article } = material;
  const words = paragraphs.reduce((sum, p) => sum + p.text.split(/\s+/).length, 0);
  const description = tidyDescription(material.description);
  const fields = fieldsOf({ ...material, description, words });
  const content: Record<BlockKind, (block: Block) => Content> = {
    embed: () => embed(video),
    lead: (block) => wording(block, fields, video.id),
    text: (block) => wording(block, fields, video.id),
    summary: () => fromTalk(article, (a) => a.summary.length > 0 && sentencesHtml(a.summary)),
    takeaways: () =>
      fromTalk(article, (a) => a.takeaways.length > 0 && listHtml(a.takeaways, 'ul')),
    article: () => fromTalk(article, (a) => a.body.length > 0 && bodyHtml(a.body)),
    quote: () => fromTalk(article, (a) => a.quote && quoteHtml(a.quote)),
    credit: (block) => wording(block, fields, video.id),
    closing: (block) => wording(block, fields, video.id),
    picture: () => picture(video),
    description: () =>
      description
        ? { html: textToHtml(description), empty: null }
        : { html: '', empty: 'no-description' },
    chapters: () => chapterList(material),
    transcript: (block) => transcript(paragraphs, block, fields, video.id)
  };
  const parts = template.blocks
    .filter((block) => block.on)
    .map((block): Part => {
      const made = { problems: [], ...content[block.kind](block) };
      const heading = fill(block.heading, fields, 'html', video.id);
      const problems = [...heading.problems, ...made.problems];
      const isHeaded = made.html && heading.text.trim() && block.kind !== 'transcript';
      const html = isHeaded ? `<h2>${heading.text.trim()}</h2>\n${made.html}` : made.html;
      return { ...made, blockId: block.id, kind: block.kind, html, problems };
    });
  const plain = {
    title: fill(template.title, fields, 'text', video.id),
    slug: fill(template.slug, fields, 'text', video.id),
    excerpt: fill(template.excerpt, fields, 'text', video.id),
    author: fill(template.author, fields, 'text', video.id)
  };
  const marked = parts
    .map((part) => part.html)
    .filter(Boolean)
    .join('\n');
  const largest = template.picture === 'none' ? null : largestPicture(video.pictures);
  return {
    title: plain.title.text.replace(/\s+/g, ' ').trim(),
    slug: slugOf(plain.slug.text || plain.title.text),
    excerpt: plain.excerpt.text.replace(/\s+/g, ' ').trim(),
    author: plain.author.text.trim(),
    categories: template.categories,
    tags: template.tags,
    date: template.date === 'video' ? (video.published ?? now) : null,
    comments: template.comments,
    picture: largest && { ...largest, alt: video.title },
    html: finishedHtml(marked, material.key),
    marked,
    parts,
    problems: (['title', 'slug', 'excerpt', 'author'] as const).flatMap((where) =>
      plain[where].problems.map((problem) => ({ where, problem }))
    )
  };
}

/** The HTML of a post as it goes out: without the marks of the desk, with the mark of its origin. */
export const finishedHtml = (marked: string, key: string): string =>
  [withoutMarks(marked), originMarker(key)].filter(Boolean).join('\n');

function fromTalk(
  article: Article | null,
  made: (article: Article) => string | false | null
): Content {
  if (!article) return { html: '', empty: 'no-captions' };
  const html = made(article) || '';
  return { html, empty: html ? null : 'no-fit' };
}

/** The whole transcript, folded away under its heading. */
function transcript(
  paragraphs: readonly Paragraph[],
  block: Block,
  fields: Fields,
  seed: string
): Content {
  if (paragraphs.length === 0) return { html: '', empty: 'no-captions' };
  const heading = fill(block.heading, fields, 'html', seed).text.trim() || 'Transcript';
  const rows = paragraphs.map((p) => `<p>${escapeHtml(p.text)}</p>`).join('\n');
  return { html: `<details><summary>${heading}</summary>\n${rows}\n</details>`, empty: null };
}

function embed(video: Item): Content {
  if (!video.embedUrl) return { html: '', empty: 'no-embed' };
  const shape = largestPicture(video.pictures);
  const ratio = shape?.width && shape.height ? shape.height / shape.width : 9 / 16;
  const width = ratio > 1 ? Math.round(WIDTH / ratio) : WIDTH;
  const height = ratio > 1 ? WIDTH : Math.round(WIDTH * ratio);
  return {
    html: playerHtml(video.embedUrl, video.title, width, height),
    empty: null
  };
}

function picture(video: Item): Content {
  const largest = largestPicture(video.pictures);
  if (!largest) return { html: '', empty: 'no-picture' };
  const size =
    largest.width && largest.height ? ` width="${largest.width}" height="${largest.height}"` : '';
  return {
    html: `<figure><img src="${escapeHtml(largest.url)}" alt="${escapeHtml(video.title)}"${size} loading="lazy"></figure>`,
    empty: null
  };
}

function chapterList({ chapters, seekTo }: Material): Content {
  if (chapters.length === 0) return { html: '', empty: 'no-chapters' };
  const rows = chapters.map(({ start, title }) => {
    const time = `<time datetime="PT${Math.round(start)}S">${timeCode(start)}</time>`;
    const at = seekTo.replace('{seek_to_second_number}', String(Math.round(start)));
    return `<li>${at ? `<a href="${escapeHtml(at)}">${time}</a>` : time} ${escapeHtml(title)}</li>`;
  });
  return { html: `<ol>\n${rows.join('\n')}\n</ol>`, empty: null };
}

/** A block of the user's own words: plain text becomes paragraphs, HTML stands. */
function wording(block: Block, fields: Fields, seed: string): Content {
  const isHtml = /<\/?[a-z][^>]*>/i.test(block.text);
  const filled = fill(block.text, fields, isHtml ? 'html' : 'text', seed);
  const html = isHtml ? filled.text : textToHtml(filled.text);
  const isEmpty = !htmlText(html) && !/<(img|iframe|hr)\b/i.test(html);
  return { html, empty: isEmpty ? 'no-text' : null, problems: filled.problems };
}
