import { htmlText } from '$lib/core/text/html.ts';

/** HTML as words: what has none is named. */
export function readable(html: string): string {
  const text = htmlText(html);
  if (text || !html.trim()) return text;
  if (/<iframe|<video/.test(html)) return '(the video)';
  return /<img/.test(html) ? '(a picture)' : '(something without words)';
}
