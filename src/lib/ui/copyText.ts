/**
 * Puts text on the clipboard. Pages that are not served safely (a telephone in the same house, say)
 * have no clipboard of their own; there a selection is copied.
 */
export async function copyText(text: string): Promise<boolean> {
  if (navigator.clipboard) {
    try {
      await navigator.clipboard.writeText(text);
      return true;
    } catch {
      // Not allowed: the older way is tried.
    }
  }
  const area = document.createElement('textarea');
  area.value = text;
  area.className = 'sr-only';
  document.body.append(area);
  area.select();
  const isCopied = document.execCommand('copy');
  area.remove();
  return isCopied;
}
