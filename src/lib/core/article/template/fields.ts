import { timeCode, type Chapter } from '../../chapters/chapter.ts';
import { largestPicture, type Item } from '../../model/item.ts';

/** What a template is filled with. */
export interface Fields {
  video: Record<
    | 'title'
    | 'url'
    | 'summary'
    | 'description'
    | 'author'
    | 'date'
    | 'duration'
    | 'language'
    | 'licence'
    | 'tags'
    | 'picture',
    string
  >;
  channel: Record<'title' | 'url', string>;
  blog: Record<'title' | 'url', string>;
  chapters: { count: number; first: string };
  transcript: { words: number };
  today: string;
}

export interface FieldSource {
  video: Item;
  description: string;
  chapters: readonly Chapter[];
  words: number;
  channel: { title: string; url: string };
  blog: { title: string; url: string };
  /** ISO 8601. */
  now: string;
}

export function fieldsOf(source: FieldSource): Fields {
  const { video, description, chapters, channel, blog } = source;
  const paragraphs = description.split(/\n\s*\n/);
  return {
    video: {
      title: video.title,
      url: video.url,
      summary: (paragraphs[0] ?? '').replace(/(?<!\s)\s*\n\s*/g, ' ').trim(),
      description,
      author: video.author,
      date: (video.published ?? source.now).slice(0, 10),
      duration: video.duration === null ? '' : timeCode(video.duration),
      language: video.language,
      licence: video.licence,
      tags: video.tags.join(', '),
      picture: largestPicture(video.pictures)?.url ?? ''
    },
    channel: { title: channel.title, url: channel.url },
    blog: { title: blog.title, url: blog.url },
    chapters: { count: chapters.length, first: chapters[0]?.title ?? '' },
    transcript: { words: source.words },
    today: source.now.slice(0, 10)
  };
}

/** Every field as one writes it in a template, with its value for this video. */
export function listFields(fields: object): { path: string; value: string }[] {
  const rows: { path: string; value: string }[] = [];
  for (const [name, value] of Object.entries(fields)) {
    if (typeof value === 'string') rows.push({ path: name, value });
    else
      for (const [key, inner] of Object.entries(value))
        rows.push({ path: `${name}.${key}`, value: String(inner) });
  }
  return rows;
}
