import { Parser } from 'htmlparser2';
import { escapeHtml } from './escapeHtml.ts';

const PARAGRAPH =
  /^(p|hr|h[1-6]|ul|ol|dl|table|blockquote|pre|div|section|article|figure|details)$/;
const LINE = /^(li|dt|dd|tr|figcaption|summary)$/;
const HIDDEN = /^(script|style|template|noscript)$/;

/** Whether an element of this name stands on a line of its own. */
export const breaksText = (name: string): boolean =>
  name === 'br' || PARAGRAPH.test(name) || LINE.test(name);

/**
 * The text of HTML: paragraphs apart by an empty line, items of lists and `br` by a line break.
 * What is not shown is left out.
 */
export function htmlText(source: string): string {
  if (!/[<&]/.test(source)) return source.trim();
  let text = '';
  let hidden = 0;
  const breakAt = (name: string) => {
    if (PARAGRAPH.test(name)) text += '\n\n';
    else if (LINE.test(name)) text += '\n';
  };
  const parser = new Parser({
    ontext: (part) => (text += hidden ? '' : part.replace(/\s+/g, ' ')),
    onopentagname(name) {
      if (HIDDEN.test(name)) hidden++;
      if (name === 'br') text += '\n';
      breakAt(name);
    },
    onclosetag(name) {
      if (HIDDEN.test(name)) hidden--;
      breakAt(name);
    }
  });
  parser.end(source);
  return text
    .split('\n')
    .map((line) => line.trim())
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Plain text as paragraphs; `inline` makes HTML of one paragraph's text. */
export function paragraphsToHtml(
  text: string,
  inline: (text: string) => string = escapeHtml
): string {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.trim())
    .filter(Boolean)
    .map((paragraph) => `<p>${inline(paragraph).replaceAll('\n', '<br>')}</p>`)
    .join('\n');
}

/** The text of HTML on one line: for titles. */
export const plainText = (source: string): string => oneLine(htmlText(source));

const RAGGED = /\s\s|[^\S ]/;

/** Runs of white space as one space; most text has none, and is left as it is. */
export const oneLine = (text: string): string =>
  (RAGGED.test(text) ? text.replace(/\s+/g, ' ') : text).trim();
