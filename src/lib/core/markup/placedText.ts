import type { Element, ElementContent, Nodes } from 'hast';
import { findElement } from './html.ts';

/** A run of characters of a text that stands as it is in the source. */
export interface Offset {
  /** Where it begins in the text, and how many characters it has. */
  at: number;
  length: number;
  /** Where it begins in the source, in characters. */
  offset: number;
}

/** Plain text on one line, and where it comes from. */
export interface PlacedText {
  text: string;
  /** Seconds of the video, where they are known. */
  seconds?: { start: number; end: number };
  offsets?: Offset[];
}

/** What is not shown. */
export const HIDDEN: ReadonlySet<string> = new Set(
  'script style template noscript head nav form button'.split(' ')
);
/** What shows something of its own. */
export const FRAMES: ReadonlySet<string> = new Set(
  'iframe video audio object embed canvas svg'.split(' ')
);
const BREAKS = /^(?:p|li|div|h[1-6]|tr|td|th|dd|dt|section|br)$/;

/**
 * The text of nodes with single spaces. What is not shown, marks that lead to footnotes and times of a
 * player (`PT90S`) are no text.
 * @param withOffsets whether it shall be known where in the source each word stands
 */
export function placedText(nodes: readonly ElementContent[], withOffsets = false): PlacedText {
  let text = '';
  let isSpaceDue = false;
  const offsets: Offset[] = [];
  const add = (value: string, offset: number | undefined) => {
    for (const { 0: run, index } of value.matchAll(/\s+|\S+/g)) {
      if (/^\s/.test(run)) {
        isSpaceDue = true;
        continue;
      }
      if (isSpaceDue && text) text += ' ';
      isSpaceDue = false;
      if (withOffsets && offset !== undefined)
        offsets.push({ at: text.length, length: run.length, offset: offset + index });
      text += run;
    }
  };
  const visit = (node: Nodes, isCode: boolean): void => {
    if (node.type === 'text') {
      // In Markdown the mark of code stands before it.
      const start = node.position?.start.offset;
      add(node.value, start !== undefined && isCode ? start + 1 : start);
    }
    if (node.type !== 'element' || isSilent(node)) return;
    if (BREAKS.test(node.tagName)) isSpaceDue = true;
    for (const child of node.children) visit(child, node.tagName === 'code');
    if (BREAKS.test(node.tagName)) isSpaceDue = true;
  };
  for (const node of nodes) visit(node, false);
  const seconds = secondsOf(nodes);
  return { text, ...(seconds && { seconds }), ...(withOffsets && { offsets }) };
}

function isSilent(node: Element): boolean {
  const { tagName, properties } = node;
  if (HIDDEN.has(tagName) || FRAMES.has(tagName)) return true;
  return tagName === 'time' ? /^PT/.test(String(properties.dateTime ?? '')) : isNoteMark(node);
}

const isNoteMark = (node: Element): boolean =>
  node.tagName === 'sup' &&
  findElement(node, (e) => e.tagName === 'a') !== null &&
  /^[\s[\](){}\d*†‡§]{0,6}$/.test(lettersOf(node));

const lettersOf = (node: Nodes): string =>
  node.type === 'text'
    ? node.value
    : 'children' in node
      ? node.children.map((child) => lettersOf(child as Nodes)).join('')
      : '';

/** The first second to the last of all that carries some. */
function secondsOf(nodes: readonly ElementContent[]): PlacedText['seconds'] {
  let [start, end] = [Infinity, -Infinity];
  for (const node of nodes) {
    if (node.type !== 'element') continue;
    const { dataStart, dataEnd } = node.properties;
    const own =
      dataStart !== undefined && dataEnd !== undefined
        ? { start: Number(dataStart), end: Number(dataEnd) }
        : secondsOf(node.children);
    if (!own || !Number.isFinite(own.start) || !Number.isFinite(own.end)) continue;
    start = Math.min(start, own.start);
    end = Math.max(end, own.end);
  }
  return Number.isFinite(start) ? { start, end } : undefined;
}
