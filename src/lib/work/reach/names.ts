import { isUpdate } from '$lib/core/delivery/payload.ts';
import { linksIn, linkTagsOf } from '$lib/core/reach/visitSource.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { entriesIn, getEntries } from '$lib/data/outbox.ts';
import { placeTitles } from '$lib/data/places.ts';

/** Titles of videos, posts and updates, by their ids. */
export async function titlesOf(ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const items = await itemsByIds(ids);
  const entries = await getEntries(ids.filter((id) => !items.has(id)));
  return new Map([
    ...[...items].map(([id, { title }]) => [id, title] as const),
    ...entries.map(({ key, payload }) => {
      const text = isUpdate(payload) ? payload.title || payload.text : '';
      return [key, text.slice(0, 120)] as const;
    })
  ]);
}

/** An update that a link with tags stands in. */
export interface LinkedUpdate {
  form: Form;
  place: string;
  /** Milliseconds since 1970. */
  at: number;
}

/** Updates by the link tags of the addresses in them: a visit with those came from there. */
export async function updatesByTags(): Promise<ReadonlyMap<string, LinkedUpdate[]>> {
  const [entries, places] = await Promise.all([entriesIn('published'), placeTitles()]);
  const byTags = new Map<string, LinkedUpdate[]>();
  for (const { payload, placeId, sentAt, updated } of entries) {
    if (!isUpdate(payload)) continue;
    const { form, text, button } = payload;
    const update = { form, place: places.get(placeId) ?? '', at: sentAt || updated };
    const tags = linksIn(`${text} ${button?.url ?? ''}`)
      .map((link) => linkTagsOf(new URL(link).search))
      .filter(Boolean);
    for (const one of new Set(tags)) byTags.set(one, [...(byTags.get(one) ?? []), update]);
  }
  return byTags;
}
