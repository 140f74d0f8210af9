import { finished } from '../article/template/compose.ts';
import { slugOf } from '../article/template/slug.ts';
import type { PostPayload } from '../delivery/payload.ts';
import type { ListEntry } from './entries.ts';
import type { ListPage } from './listPage.ts';
import { renderListPage } from './render.ts';

/** A list page as its blog is asked to take it: cleaned, and with the mark of its origin. */
export function listPagePayload(
  page: ListPage,
  entries: readonly ListEntry[],
  blog: { title: string; url: string }
): PostPayload {
  const marked = renderListPage(page, entries);
  return {
    title: page.title.trim(),
    html: finished(marked, { key: page.key, blog, players: [] }).html,
    slug: slugOf(page.slug || page.title),
    excerpt: '',
    author: '',
    categories: [],
    tags: [],
    comments: 'closed',
    picture: null,
    status: page.status,
    date: null
  };
}
