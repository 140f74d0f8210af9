/**
 * Shows a stretch of the post in the editor: the block is found by its text, the stretch selected
 * and scrolled into sight. Where the block was written on since it was looked through, the same words are looked
 * for in it, and at last anywhere.
 */
export function showInText(blockText: string, from: number, to: number): void {
  const editor = document.querySelector<HTMLElement>('.text[contenteditable]');
  if (!editor) return;
  const plain = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim();
  const blocks = [...editor.querySelectorAll<HTMLElement>('p, h2, h3, h4, li')];
  const texts = blocks.map((block) => plain(block.textContent));
  const words = blockText.slice(from, to);
  const index = [
    (text: string) => text === blockText,
    (text: string) => text.startsWith(blockText.slice(0, to)),
    (text: string) => text.includes(words)
  ].reduce((found, is) => (found < 0 ? texts.findIndex(is) : found), -1);
  const [block, text = ''] = [blocks[index], texts[index]];
  if (!block) return;
  block.scrollIntoView({ block: 'center' });
  const start = text.startsWith(words, from) ? from : text.indexOf(words);
  const range = rangeIn(block, start, start + words.length);
  editor.focus({ preventScroll: true });
  const selection = getSelection();
  if (!range || !selection) return;
  selection.removeAllRanges();
  selection.addRange(range);
}

/** A range over characters `from` to `to` of what a block shows: white space in a row counts once. */
function rangeIn(block: HTMLElement, from: number, to: number): Range | null {
  const walker = document.createTreeWalker(block, NodeFilter.SHOW_TEXT);
  const range = document.createRange();
  let seen = 0;
  let isAfterSpace = true;
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    for (const [i, character] of (node.textContent ?? '').split('').entries()) {
      const isSpace = /\s/.test(character);
      if (isSpace && isAfterSpace) continue;
      if (seen === from) range.setStart(node, i);
      seen++;
      isAfterSpace = isSpace;
      if (seen < to) continue;
      range.setEnd(node, i + 1);
      return range;
    }
  }
  return null;
}
