import {
  compose,
  finished,
  type ComposedPost,
  type Material
} from '$lib/core/article/template/compose.ts';
import type { Template } from '$lib/core/article/template/template.ts';
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

  mergePosts,
  withSeconds
};
export type ComposeApi = typeof composeApi;
