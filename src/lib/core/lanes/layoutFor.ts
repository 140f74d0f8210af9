import type { Item } from '../model/item.ts';
import type { Lane } from './lane.ts';

const primary = (code: string): string => code.trim().toLowerCase().split('-')[0] ?? '';

/**
 * The kept layout that a lane lays the post of an item out by.
 * @returns its id, or null for the one that the channel's last post had
 */
export function layoutFor(
  { layout, layoutRules }: Lane['make'],
  { language, tags }: Pick<Item, 'language' | 'tags'>
): string | null {
  const names = tags.map((tag) => tag.replace(/^#/, '').toLowerCase());
  const rule = layoutRules.find(({ by, is }) =>
    by === 'language'
      ? primary(is) !== '' && primary(is) === primary(language)
      : names.includes(is.trim().replace(/^#/, '').toLowerCase())
  );
  return rule?.layout ?? layout;
}
