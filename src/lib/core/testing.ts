import type { Item } from './model/item.ts';

/** An item for tests, with what matters in the test given. */
export function anItem(given: Partial<Item> & Pick<Item, 'id' | 'kind'>): Item {
  return {
    placeId: given.kind === 'video' ? 'channel' : 'blog',
    nativeId: given.id,
    url: `https://${given.kind}.example/${given.id}`,
    title: given.id,
    published: '2026-03-01T09:00:00.000Z',
    updated: given.published ?? '2026-03-01T09:00:00.000Z',
    visibility: 'public',
    author: 'Wrenfold Loomworks',
    language: 'en',
    licence: '',
    duration: given.kind === 'video' ? 300 : null,
    summary: '',
    pictures: [],
    embedUrl: given.kind === 'video' ? `https://video.example/embed/${given.id}` : '',
    contentUrl: '',
    captions: [],
    tags: [],
    embeds: [],
    links: [],
    origin: null,
    ...given
  };
}
