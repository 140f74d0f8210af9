import type { Twin } from '$lib/core/model/twin.ts';

/** Drifted twins of which one half was made here. */
export const updatable = (some: readonly Twin[]): Twin[] =>
  some.filter(
    ({ standing, video, post }) =>
      standing === 'drifted' && video && post && (video.isMade || post.isMade)
  );
