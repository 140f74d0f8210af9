import { readHtml } from './html.ts';
import type { PlacedText } from './placedText.ts';
import { postBlocks, type PostBlock } from './postBlocks.ts';

/** A block of text as a reader sees it. */
export interface TextBlock {
  kind: 'heading' | 'paragraph' | 'item' | 'quote' | 'code' | 'picture';
  /** Plain text; of a picture, its text alternative. */
  text: string;
  /** Seconds of the video it comes from, where that is known. */
  start?: number;
  end?: number;
  /** Of an item in a numbered list, which one it is, from 1 on. */
  step?: number;
}

/**
 * The text of HTML, block by block: each paragraph of an item in a list is one of its own. What is
 * folded away, notes, tables and players are left out: they are no part of a post's prose.
 * @returns in the order of the page; texts with single spaces
 */
export const textBlocks = (html: string): TextBlock[] =>
  asText(postBlocks(readHtml(html))).map(({ block }) => block);

/** The prose of blocks that were read, each with the text that it was made from. */
export function asText(blocks: readonly PostBlock[]): { block: TextBlock; from: PlacedText }[] {
  const plain = (kind: TextBlock['kind'], from: PlacedText, step: number | null = null) => ({
    from,
    block: {
      kind,
      text: from.text,
      ...from.seconds,
      ...(step === null ? {} : { step })
    }
  });
  return blocks.flatMap((block) => {
    switch (block.kind) {
      case 'heading':
      case 'paragraph':
      case 'quote':
        return [plain(block.kind, block)];
      case 'list':
        return block.items.flatMap(({ paragraphs, step }) =>
          // Only what stands first in an item is the step.
          paragraphs.map((paragraph, i) => plain('item', paragraph, i === 0 ? step : null))
        );
      case 'picture':
        return [
          plain('picture', { text: block.alt }),
          ...(block.caption ? [plain('paragraph', { text: block.caption })] : [])
        ];
      case 'unspoken':
        return block.what === 'code'
          ? [plain('code', block)]
          : (block.alts ?? []).map((text) => plain('picture', { text }));
    }
  });
}
