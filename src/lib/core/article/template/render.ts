import type { Element, Root } from 'hast';
import { h } from 'hastscript';
import { SKIP, visit } from 'unist-util-visit';
import { chapterFields, type Chapter } from '../../chapters/chapter.ts';
import { onLines, readHtml, writeHtml } from '../../markup/html.ts';
import { writeMarkdown } from '../../markup/markdown.ts';
import type { Article, ArticleBlock, ArticleSentence, ComparisonRow } from '../extract/article.ts';

/** Seconds as attributes, so that a paragraph keeps its source through editing. */
const seconds = (start: number, end: number) => ({
  dataStart: start.toFixed(2),
  dataEnd: end.toFixed(2)
});

const spanOf = (sentences: readonly ArticleSentence[]) =>
  seconds(Math.min(...sentences.map((s) => s.start)), Math.max(...sentences.map((s) => s.end)));

export const paragraphOf = (sentences: readonly ArticleSentence[]): Element =>
  h('p', spanOf(sentences), sentences.map((s) => s.text).join(' '));

export const listOf = (items: readonly ArticleSentence[], tag: 'ol' | 'ul'): Element =>
  h(tag, ['\n', ...onLines(items.map((s) => h('li', paragraphOf([s])))), '\n']);

export const quoteOf = (quote: ArticleSentence): Element => h('blockquote', paragraphOf([quote]));

const tableOf = (rows: readonly ComparisonRow[]): Element => {
  const cell = (tag: 'td' | 'th', text: string, { start, end }: ComparisonRow) =>
    h(tag, tag === 'th' ? { scope: 'row' } : {}, h('p', seconds(start, end), text));
  return h(
    'table',
    h(
      'tbody',
      rows.map((row) => h('tr', cell('th', row.name, row), cell('td', row.value, row)))
    )
  );
};

/** The blocks of an article's body, each with the seconds it comes from. */
export const bodyOf = (body: readonly ArticleBlock[]): Element[] => body.map(elementOf);

function elementOf(block: ArticleBlock): Element {
  switch (block.kind) {
    case 'heading':
      return h('h2', seconds(block.start, block.end), block.text);
    case 'paragraph':
      return paragraphOf(block.sentences);
    case 'list':
      return listOf(block.items, 'ol');
    case 'table':
      return tableOf(block.rows);
    case 'picture':
      return h('figure', h('img', { src: block.url, alt: block.alt, loading: 'lazy' }));
  }
}

/** An article as one tree: title, summary, takeaways, body and quotation. */
export const articleTree = (title: string, article: Article): Root => ({
  type: 'root',
  children: onLines([
    h('h1', title),
    ...(article.summary.length > 0 ? [paragraphOf(article.summary)] : []),
    ...(article.takeaways.length > 0 ? [listOf(article.takeaways, 'ul')] : []),
    ...bodyOf(article.body),
    ...(article.quote ? [quoteOf(article.quote)] : [])
  ])
});

export const articleHtml = (title: string, article: Article): string =>
  writeHtml(articleTree(title, article));

/** An article as Markdown (CommonMark) with YAML front matter. */
export const articleMarkdown = (
  title: string,
  article: Article,
  excerpt: string,
  chapters: readonly Chapter[]
): string =>
  writeMarkdown(
    {
      title,
      ...(excerpt ? { excerpt } : {}),
      ...(chapters.length > 1 ? { chapters: chapterFields(chapters) } : {})
    },
    articleTree(title, article)
  );

/** Attributes that only the desk needs. */
const MARKS = ['dataStart', 'dataEnd', 'dataPart'];

/** A post as it goes out: without the marks of the desk, and with nothing left open. */
export function withoutMarks(html: string): string {
  const tree = readHtml(html);
  visit(tree, 'element', (node) => {
    for (const name of MARKS) delete node.properties[name];
    const only = node.children.length === 1 ? node.children[0] : null;
    // The editor keeps the seconds of a cell in a paragraph; in a post it would only add space.
    if (/^t[dh]$/.test(node.tagName) && only?.type === 'element' && only.tagName === 'p')
      node.children = only.children;
  });
  visit(tree, 'element', (node, index, parent) => {
    // What stood in it was left out.
    if (node.tagName !== 'figure' || node.children.length > 0 || !parent || index === undefined)
      return;
    parent.children.splice(index, 1);
    return [SKIP, index];
  });
  return writeHtml(tree);
}
