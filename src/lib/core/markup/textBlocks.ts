import { Parser } from 'htmlparser2';

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

const KINDS: Record<string, TextBlock['kind']> = {
  h1: 'heading',
  h2: 'heading',
  h3: 'heading',
  h4: 'heading',
  h5: 'heading',
  h6: 'heading',
  p: 'paragraph',
  li: 'item',
  dd: 'item',
  dt: 'item',
  td: 'item',
  th: 'item',
  blockquote: 'quote',
  pre: 'code',
  figcaption: 'paragraph',
  summary: 'heading'
};
/** What is folded away or not said by the post is no part of its prose. */
const SKIPPED = /^(?:script|style|template|svg|iframe|time)$/;

/**
 * The text of HTML, block by block. A `details` element is left out: it is folded away.
 * @returns in the order of the page; texts with single spaces
 */
export function textBlocks(html: string): TextBlock[] {
  const blocks: TextBlock[] = [];
  const kinds: TextBlock['kind'][] = [];
  let open: TextBlock | null = null;
  let skipped = 0;
  /** Of each list that is open, how many items it has had; null where it is not numbered. */
  const lists: (number | null)[] = [];
  /** The step that the next text belongs to. */
  let step: number | null = null;
  const close = () => {
    if (open) {
      open.text = open.text.replace(/\s+/g, ' ').trim();
      if (open.text) {
        if (open.kind === 'item' && step !== null) open.step = step;
        blocks.push(open);
        step = null;
      }
    }
    open = null;
  };
  const parser = new Parser({
    onopentag(name, attributes) {
      if (SKIPPED.test(name) || name === 'details') skipped++;
      if (skipped > 0) return;
      const kind = KINDS[name];
      if (name === 'ol' || name === 'ul') lists.push(name === 'ol' ? 0 : null);
      const counted = lists.at(-1);
      if (name === 'li' && typeof counted === 'number') lists[lists.length - 1] = counted + 1;
      const inStep = lists.at(-1) ?? null;
      if (name === 'img') {
        blocks.push({ kind: 'picture', text: attributes.alt ?? '' });
      } else if (name === 'br' && open) open.text += ' ';
      if (!kind) return;
      close();
      kinds.push(kind);
      // A paragraph in a list item or a quotation is of that kind.
      const outer = kinds.find((k) => k === 'item' || k === 'quote');
      const seconds = (value: string | undefined) => (value ? Number(value) : undefined);
      const [start, end] = [seconds(attributes['data-start']), seconds(attributes['data-end'])];
      if (name === 'li') step = inStep;
      open = {
        kind: kind === 'paragraph' ? (outer ?? kind) : kind,
        text: '',
        ...(start !== undefined && end !== undefined ? { start, end } : {})
      };
    },
    ontext(text) {
      if (skipped > 0) return;
      if (open) open.text += text;
      else if (text.trim()) open = { kind: 'paragraph', text };
    },
    onclosetag(name) {
      if (SKIPPED.test(name) || name === 'details') skipped--;
      else if (skipped === 0 && (name === 'ol' || name === 'ul')) {
        close();
        lists.pop();
      } else if (skipped === 0 && KINDS[name]) {
        close();
        kinds.pop();
      }
    }
  });
  parser.end(html);
  close();
  return blocks;
}
