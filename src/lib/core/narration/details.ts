import { z } from 'zod';
import { fill, type FillProblem } from '../article/template/fill.ts';
import { timeCode, type Chapter } from '../chapters/chapter.ts';
import type { Item } from '../model/item.ts';

/** What a channel takes, in characters as it counts them. */
export const limitsSchema = z.object({
  title: z.number().int().default(100),
  description: z.number().int().default(5000),
  /** All tags together, counted with commas and spaces. */
  tags: z.number().int().default(500)
});
export type Limits = z.infer<typeof limitsSchema>;
export const USUAL_LIMITS: Limits = limitsSchema.parse({});

/** What goes with a video, before its fields are filled in. */
export const videoDetailsSchema = z.object({
  title: z.string(),
  /** Liquid with variants. */
  description: z.string(),
  tags: z.array(z.string()),
  category: z.string(),
  language: z.string(),
  visibility: z.enum(['public', 'unlisted', 'private', 'dated']),
  /** Local date and time for `dated`, as a date field has it. */
  on: z.string(),
  /** Channels it goes to. */
  placeIds: z.array(z.string()),
  /** Whether the post gets the video embedded once it can be watched. */
  embeds: z.boolean()
});
export type VideoDetails = z.infer<typeof videoDetailsSchema>;

/** The link first, a paragraph that varies, then what the post says, chapters and credit. */
export const DESCRIPTION_TEMPLATE = `{{ post.url }}

{From our blog, read aloud:|Our latest post, to listen to:|A post of ours, in pictures and spoken:} {{ post.summary }}

{% if chapters.list != "" %}{{ chapters.list }}

{% endif %}{The whole post, with everything in its place|To read at your own pace|The post itself}: {{ post.url }}
{% if post.author != "" %}
Text: {{ post.author }}{% endif %}`;

/** What a description is filled with. */
export interface PostFields {
  post: Record<'title' | 'url' | 'summary' | 'author' | 'date' | 'tags' | 'language', string>;
  blog: Record<'title' | 'url', string>;
  channel: Record<'title' | 'url', string>;
  chapters: { count: number; list: string };
  today: string;
}

export function postFields(source: {
  post: Item;
  blog: { title: string; url: string };
  channel: { title: string; url: string };
  chapters: readonly Chapter[];
  /** ISO 8601. */
  now: string;
}): PostFields {
  const { post, blog, channel, chapters, now } = source;
  return {
    post: {
      title: post.title,
      url: post.url,
      summary: post.summary,
      author: post.author,
      date: (post.published ?? now).slice(0, 10),
      tags: post.tags.join(', '),
      language: post.language
    },
    blog: { title: blog.title, url: blog.url },
    channel: { title: channel.title, url: channel.url },
    chapters: {
      count: chapters.length,
      list: chapters.map((c) => `${timeCode(c.start)} ${c.title}`).join('\n')
    },
    today: now.slice(0, 10)
  };
}

/** The description as it goes out. */
export function fillDescription(
  template: string,
  fields: PostFields
): { text: string; problems: FillProblem[] } {
  const { text, problems } = fill(template, fields, 'text', fields.post.url);
  return { text: text.replace(/\n{3,}/g, '\n\n').trim(), problems };
}

/** Characters of a tag list as channels count it: joined by a comma and a space. */
export const tagsLength = (tags: readonly string[]): number => [...tags.join(', ')].length;

/** As many of the tags, from the first on, as the limit takes; each once. */
export function fittingTags(tags: readonly string[], limit: number): string[] {
  const kept: string[] = [];
  for (const tag of tags.map((t) => t.replace(/[,<>]/g, ' ').replace(/\s+/g, ' ').trim())) {
    if (!tag || kept.some((k) => k.toLowerCase() === tag.toLowerCase())) continue;
    if (tagsLength([...kept, tag]) <= limit) kept.push(tag);
  }
  return kept;
}

export type DetailsFinding =
  | { kind: 'no-title' | 'no-channel' | 'no-date' | 'past-date' | 'no-link' | 'angle-brackets' }
  | { kind: 'too-long'; what: 'title' | 'description' | 'tags'; length: number; limit: number }
  | { kind: 'field'; problem: FillProblem };

/**
 * What stands in the way of placing a video, and what to look at.
 * @param now local date and time as a date field has it
 */
export function checkDetails(
  details: VideoDetails,
  description: { text: string; problems: FillProblem[] },
  limits: Limits,
  now: string
): DetailsFinding[] {
  const findings: DetailsFinding[] = [];
  const length = (text: string) => [...text].length;
  if (!details.title.trim()) findings.push({ kind: 'no-title' });
  if (details.placeIds.length === 0) findings.push({ kind: 'no-channel' });
  for (const [what, n] of [
    ['title', length(details.title)],
    ['description', length(description.text)],
    ['tags', tagsLength(details.tags)]
  ] as const)
    if (n > limits[what]) findings.push({ kind: 'too-long', what, length: n, limit: limits[what] });
  if (details.visibility === 'dated') {
    if (!details.on) findings.push({ kind: 'no-date' });
    else if (details.on <= now) findings.push({ kind: 'past-date' });
  }
  if (/[<>]/.test(details.title)) findings.push({ kind: 'angle-brackets' });
  if (!/https?:\/\//.test(description.text)) findings.push({ kind: 'no-link' });
  for (const problem of description.problems)
    if (problem.kind !== 'empty-field') findings.push({ kind: 'field', problem });
  return findings;
}

/** Whether a video with these findings may not go out. */
export const isHeldBack = (findings: readonly DetailsFinding[]): boolean =>
  findings.some(
    (f) => f.kind !== 'no-link' && !(f.kind === 'field' && f.problem.kind === 'empty-field')
  );
