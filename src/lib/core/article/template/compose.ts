import type { Element } from 'hast';
import { inLanguage } from './inLanguage.ts';
import { h } from 'hastscript';
import type { Paragraph } from '../../text/paragraphs.ts';
import { timeCode, type Chapter } from '../../chapters/chapter.ts';
import { playerOf } from './player.ts';
import { addressAt } from '../../feeds/address.ts';
import { onLines, readHtml, writeHtml } from '../../markup/html.ts';
import { htmlText } from '../../text/html.ts';
import { largestPicture, type Item, type Picture } from '../../model/item.ts';
import { cleanPost } from '../../feeds/clean.ts';
import { originMarker } from './originMarker.ts';
import { textToHtml, tidyDescription } from './description.ts';
import type { Article } from '../extract/article.ts';
import { fieldsOf, type Fields } from './fields.ts';
import { slugOf } from './slug.ts';
import { fill, newBudget, type FillBudget, type FillProblem } from './fill.ts';
import { bodyOf, listOf, paragraphOf, quoteOf, withoutMarks } from './render.ts';
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
  /** Origins of connected places: only their players stand in a post. */
  players: readonly string[];
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
  /** Addresses of frames that are left out, as they are not of a connected place. */
  leftOut: string[];
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
  const budget = newBudget();
  const content: Record<BlockKind, (block: Block) => Content> = {
    embed: () => embed(video),
    lead: (block) => wording(block, fields, video.id, budget),
    text: (block) => wording(block, fields, video.id, budget),
    summary: () => fromTalk(article, (a) => (a.summary.length > 0 ? [paragraphOf(a.summary)] : [])),
    takeaways: () =>
      fromTalk(article, (a) => (a.takeaways.length > 0 ? [listOf(a.takeaways, 'ul')] : [])),
    article: () => fromTalk(article, (a) => bodyOf(a.body)),
    quote: () => fromTalk(article, (a) => (a.quote ? [quoteOf(a.quote)] : [])),
    credit: (block) => wording(block, fields, video.id, budget),
    closing: (block) => wording(block, fields, video.id, budget),
    picture: () => picture(video),
    description: () =>
      description
        ? { html: textToHtml(description), empty: null }
        : { html: '', empty: 'no-description' },
    chapters: () => chapterList(material),
    transcript: (block) => transcript(paragraphs, block, fields, video.id, budget)
  };
  const parts = template.blocks
    .filter((block) => block.on)
    .map((block) => inLanguage(block, video.language))
    .map((block): Part => {
      const part = { problems: [], ...content[block.kind](block) };
      const heading = fill(block.heading, fields, 'html', video.id, budget);
      const problems = [...heading.problems, ...part.problems];
      const isHeaded = part.html && heading.text.trim() && block.kind !== 'transcript';
      const html = isHeaded ? `<h2>${heading.text.trim()}</h2>\n${part.html}` : part.html;
      return { ...part, blockId: block.id, kind: block.kind, html, problems };
    });
  const plain = {
    title: fill(template.title, fields, 'text', video.id, budget),
    slug: fill(template.slug, fields, 'text', video.id, budget),
    excerpt: fill(template.excerpt, fields, 'text', video.id, budget),
    author: fill(template.author, fields, 'text', video.id, budget)
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
    ...finished(marked, material),
    marked,
    parts,
    problems: (['title', 'slug', 'excerpt', 'author'] as const).flatMap((where) =>
      plain[where].problems.map((problem) => ({ where, problem }))
    )
  };
}

/**
 * The HTML of a post as it goes out: cleaned by the list for HTML from outside, whoever wrote it,
 * without the marks of the desk, and with the mark of its origin. Nothing is changed after this.
 */
export function finished(
  marked: string,
  { key, blog, players }: Pick<Material, 'key' | 'blog' | 'players'>
): Pick<ComposedPost, 'html' | 'leftOut'> {
  const clean = (html: string) => cleanPost(html, blog.url, players);
  const { html: first, leftOut } = clean(marked);
  let html = withoutMarks(first);
  // Cleaned and mended again it is the same: whoever shows it cleaned shows what goes out.
  for (let pass = 0; ; pass++) {
    const cleaned = clean(html).html;
    if (spelledAlike(cleaned) === spelledAlike(html)) break;
    const again = withoutMarks(cleaned);
    if (again === html) break;
    html = pass < PASSES ? again : textToHtml(htmlText(again));
  }
  return { html: [html, originMarker(key)].filter(Boolean).join('\n'), leftOut };
}
/** HTML without the ways in which two writers spell the same. */
const spelledAlike = (html: string): string =>
  html.replaceAll('&quot;', '"').replaceAll(' />', '>');
/** Markup that is not settled after so many is given up for its text. */
const PASSES = 6;

/** Blocks that were made, as the content of a part; `why` they are none. */
const made = (blocks: readonly Element[], why: EmptyReason): Content =>
  blocks.length > 0 ? { html: writeHtml(onLines(blocks)), empty: null } : { html: '', empty: why };

const fromTalk = (article: Article | null, blocks: (article: Article) => Element[]): Content =>
  article ? made(blocks(article), 'no-fit') : made([], 'no-captions');

/** The whole transcript, folded away under its heading. */
function transcript(
  paragraphs: readonly Paragraph[],
  block: Block,
  fields: Fields,
  seed: string,
  budget: FillBudget
): Content {
  if (paragraphs.length === 0) return made([], 'no-captions');
  const heading = fill(block.heading, fields, 'html', seed, budget).text.trim() || 'Transcript';
  const rows = onLines([
    h('summary', readHtml(heading).children),
    ...paragraphs.map((p) => h('p', p.text))
  ]);
  return made([h('details', [...rows, '\n'])], 'no-captions');
}

function embed(video: Item): Content {
  if (!video.embedUrl) return made([], 'no-embed');
  const shape = largestPicture(video.pictures);
  const ratio = shape?.width && shape.height ? shape.height / shape.width : 9 / 16;
  const width = ratio > 1 ? Math.round(WIDTH / ratio) : WIDTH;
  const height = ratio > 1 ? WIDTH : Math.round(WIDTH * ratio);
  return made([playerOf(video.embedUrl, video.title, width, height)], 'no-embed');
}

function picture(video: Item): Content {
  const largest = largestPicture(video.pictures);
  if (!largest) return made([], 'no-picture');
  const { url, width, height } = largest;
  const size = width && height ? { width, height } : {};
  const image = h('img', { src: url, alt: video.title, ...size, loading: 'lazy' });
  return made([h('figure', image)], 'no-picture');
}

function chapterList({ chapters, seekTo }: Material): Content {
  const rows = chapters.map(({ start, title }) => {
    const time = h('time', { dateTime: `PT${Math.floor(start)}S` }, timeCode(start));
    const href = addressAt(seekTo, start);
    return h('li', [href ? h('a', { href }, time) : time, ` ${title}`]);
  });
  return made(rows.length > 0 ? [h('ol', ['\n', ...onLines(rows), '\n'])] : [], 'no-chapters');
}

/** A block of the user's own words: plain text becomes paragraphs, HTML stands. */
function wording(block: Block, fields: Fields, seed: string, budget: FillBudget): Content {
  const isHtml = /<\/?[a-z][^>]*>/i.test(block.text);
  const filled = fill(block.text, fields, isHtml ? 'html' : 'text', seed, budget);
  const html = isHtml ? filled.text : textToHtml(filled.text);
  const isEmpty = !htmlText(html) && !/<(img|iframe|hr)\b/i.test(html);
  return { html, empty: isEmpty ? 'no-text' : null, problems: filled.problems };
}
