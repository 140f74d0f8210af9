import { hashOf } from '../model/hash.ts';
import { plainText } from './html.ts';

/** The same for two pieces of HTML that read the same, and hardly ever for others. */
export function textHash(html: string): string {
  const text = plainText(html);
  return `${text.length}-${hashOf(text)}`;
}
