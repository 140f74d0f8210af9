/**
 * Shows a stretch of the post in the editor: the block is found by its text, the stretch selected
 * and imported into sight.
 */
export function showInText(blockText: string, from: number, to: number): void {
  const editor = document.querySelector<HTMLElement>('.text[contenteditable]');
  if (!editor) return;
  const plain = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim();
  const blocks = [...editor.querySelectorAll<HTMLElement>('p, h2, h3, h4, li')];
  const block = blocks.find((b) => plain(b.textContent) === blockText);
  if (!block) return;
  block.scrollIntoView({ block: 'center' });
  const range = rangeIn(block, from, to);
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
