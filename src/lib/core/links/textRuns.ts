import type { Element, ElementContent, Root, Text } from 'hast';
import { findElement, readHtml } from '../markup/html.ts';

/** A paragraph, or what is like one, in which words may be linked. */
export interface TextRun {
  /** Its whole text as it stands in the source. */
  text: string;
  /** Texts outside of links and code, with the place at which each begins in the whole. */
  free: { node: Text; parent: Element; at: number }[];
}

const HOLDS_TEXT = new Set(['p', 'li', 'dd', 'td']);
/** What is a heading, an aside, somebody else's words or already a link stays as it is. */
const LEFT_ALONE =
  /^(?:h[1-6]|summary|details|figure|blockquote|pre|code|a|cite|q|iframe|data|time)$/;

/** Paragraphs of a post in which words may be linked, in its order. */
export function textRuns(html: string): { tree: Root; runs: TextRun[] } {
  const tree = readHtml(html);
  const runs: TextRun[] = [];
  const visit = (element: Element): void => {
    if (LEFT_ALONE.test(element.tagName)) return;
    const isInner = element.children.some(
      (child) =>
        child.type === 'element' &&
        (HOLDS_TEXT.has(child.tagName) || child.tagName === 'ul' || child.tagName === 'ol')
    );
    // Lines of a list of chapters lead to seconds of the video.
    const isChapter = findElement(element, ({ tagName }) => tagName === 'time') !== null;
    if (HOLDS_TEXT.has(element.tagName) && !isInner) {
      if (!isChapter) runs.push(runOf(element));
    } else for (const child of element.children) if (child.type === 'element') visit(child);
  };
  for (const child of tree.children) if (child.type === 'element') visit(child);
  return { tree, runs };
}

function runOf(block: Element): TextRun {
  let text = '';
  const free: TextRun['free'] = [];
  const visit = (node: ElementContent, parent: Element, isFree: boolean): void => {
    if (node.type === 'text') {
      if (isFree) free.push({ node, parent, at: text.length });
      text += node.value;
    } else if (node.type === 'element') {
      if (node.tagName === 'br') text += '\n';
      const isLeft = LEFT_ALONE.test(node.tagName);
      for (const child of node.children) visit(child, node, isFree && !isLeft);
    }
  };
  for (const child of block.children) visit(child, block, true);
  return { text, free };
}
