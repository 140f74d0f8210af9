import { stringify } from 'yaml';
import { timeCode, type Chapter } from '../../chapters/chapter.ts';
import { escapeHtml } from '../../text/html.ts';
import type { Article, ArticleBlock, ArticleSentence } from '../extract/article.ts';

/** Seconds as attributes, so that a paragraph keeps its source through editing. */
const seconds = (start: number, end: number): string =>
  ` data-start="${start.toFixed(2)}" data-end="${end.toFixed(2)}"`;

const spanOf = (sentences: readonly ArticleSentence[]): string =>
  seconds(Math.min(...sentences.map((s) => s.start)), Math.max(...sentences.map((s) => s.end)));

export const sentencesHtml = (sentences: readonly ArticleSentence[]): string =>
  `<p${spanOf(sentences)}>${sentences.map((s) => escapeHtml(s.text)).join(' ')}</p>`;

export const listHtml = (items: readonly ArticleSentence[], tag: 'ol' | 'ul'): string =>
  `<${tag}>\n${items.map((s) => `<li><p${seconds(s.start, s.end)}>${escapeHtml(s.text)}</p></li>`).join('\n')}\n</${tag}>`;

export const quoteHtml = (quote: ArticleSentence): string =>
  `<blockquote><p${seconds(quote.start, quote.end)}>${escapeHtml(quote.text)}</p></blockquote>`;

/** The body of an article as HTML, each block with the seconds it comes from. */
export const bodyHtml = (body: readonly ArticleBlock[]): string => body.map(blockHtml).join('\n');

function blockHtml(block: ArticleBlock): string {
  switch (block.kind) {
    case 'heading':
      return `<h2${seconds(block.start, block.end)}>${escapeHtml(block.text)}</h2>`;
    case 'paragraph':
      return sentencesHtml(block.sentences);
    case 'list':
      return listHtml(block.items, 'ol');
    case 'picture':
      return `<figure><img src="${escapeHtml(block.url)}" alt="${escapeHtml(block.alt)}" loading="lazy"></figure>`;
  }
}

/** HTML as it goes out: without the marks that only the desk needs. */
export const withoutMarks = (html: string): string =>
  html.replace(/<[^>]+>/g, (tag) => tag.replace(/ data-(?:start|end|part)="[^"]*"/g, ''));

const escapeMarkdown = (text: string): string =>
  text
    .replace(/([\\`*_[\]<>])/g, '\\$1')
    .replace(/^(\d+)([.)])/, '$1\\$2')
    .replace(/^([#+-])/, '\\$1');

/** An article as Markdown (CommonMark) with YAML front matter. */
export function articleMarkdown(
  title: string,
  article: Article,
  excerpt: string,
  chapters: readonly Chapter[]
): string {
  const front = stringify({
    title,
    ...(excerpt ? { excerpt } : {}),
    ...(chapters.length > 1
      ? { chapters: chapters.map((c) => ({ at: timeCode(c.start), title: c.title })) }
      : {})
  });
  const text = (sentences: readonly ArticleSentence[]) =>
    sentences.map((s) => escapeMarkdown(s.text)).join(' ');
  const parts = [
    `---\n${front}---`,
    `# ${escapeMarkdown(title)}`,
    text(article.summary),
    article.takeaways.map((s) => `- ${escapeMarkdown(s.text)}`).join('\n'),
    ...article.body.map((block) => {
      switch (block.kind) {
        case 'heading':
          return `## ${escapeMarkdown(block.text)}`;
        case 'paragraph':
          return text(block.sentences);
        case 'list':
          return block.items.map((s, i) => `${i + 1}. ${escapeMarkdown(s.text)}`).join('\n');
        case 'picture':
          return `![${escapeMarkdown(block.alt)}](<${encodeURI(block.url)}>)`;
      }
    }),
    article.quote ? `> ${escapeMarkdown(article.quote.text)}` : ''
  ];
  return `${parts.filter(Boolean).join('\n\n')}\n`;
}

/** An article as one HTML fragment: summary, takeaways, body and quotation. */
export const articleHtml = (title: string, article: Article): string =>
  [
    `<h1>${escapeHtml(title)}</h1>`,
    article.summary.length > 0 ? sentencesHtml(article.summary) : '',
    article.takeaways.length > 0 ? listHtml(article.takeaways, 'ul') : '',
    bodyHtml(article.body),
    article.quote ? quoteHtml(article.quote) : ''
  ]
    .filter(Boolean)
    .join('\n');
