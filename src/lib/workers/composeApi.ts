import {
  compose,
  finished,
  type ComposedPost,
  type Material
} from '$lib/core/article/template/compose.ts';
import type { Template } from '$lib/core/article/template/template.ts';
import type { PostPayload } from '$lib/core/delivery/payload.ts';
import { entriesOf, type Listable } from '$lib/core/listPages/entries.ts';
import type { ListPage } from '$lib/core/listPages/listPage.ts';
import { listPagePayload } from '$lib/core/listPages/payload.ts';
import type { Playlist } from '$lib/core/model/playlist.ts';
import { mergePosts } from '$lib/core/twins/merge/mergePosts.ts';
import { withSeconds } from '$lib/core/twins/merge/withSeconds.ts';

/** Lays out posts. A layout may come from a stranger, so it is filled where it holds up nobody. */
export const composeApi = {
  /**
   * @param edited the HTML of the text as edited by hand; null where it was not
   * @returns the post as the layout makes it, and as it goes out
   */
  compose(
    template: Template,
    material: Material,
    edited: string | null
  ): { made: ComposedPost; post: ComposedPost } {
    const made = compose(template, material);
    return { made, post: edited === null ? made : { ...made, ...finished(edited, material) } };
  },

  /** Makes a page that lists items. */
  listPage(
    page: ListPage,
    listable: readonly Listable[],
    playlists: readonly Playlist[],
    blog: { title: string; url: string }
  ): { payload: PostPayload; items: number } {
    const entries = entriesOf(page, listable, playlists);
    return { payload: listPagePayload(page, entries, blog), items: entries.length };
  },

  mergePosts,
  withSeconds
};
export type ComposeApi = typeof composeApi;
