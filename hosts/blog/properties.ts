import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import type { Post } from '../world/world.ts';

/** Microformats2 properties. */
export type Properties = Record<string, unknown[]>;

/** Changes a post as Micropub's update has it: replace, add, delete. */
export function changePost(
  post: Post,
  change: { replace?: Properties; add?: Properties; delete?: string[] | Properties }
): void {
  for (const [name, values] of Object.entries(change.replace ?? {})) {
    if (name === 'post-status') post.status = values[0] === 'draft' ? 'draft' : 'published';
    else if (name === 'visibility')
      post.visibility = z
        .enum(['public', 'unlisted', 'private'])
        .catch(post.visibility)
        .parse(values[0]);
    else post.properties[name] = values;
  }
  for (const [name, values] of Object.entries(change.add ?? {})) {
    post.properties[name] = [...(post.properties[name] ?? []), ...values];
  }
  const gone = change.delete ?? [];
  if (Array.isArray(gone)) for (const name of gone) delete post.properties[name];
  else
    for (const [name, values] of Object.entries(gone)) {
      post.properties[name] = (post.properties[name] ?? []).filter(
        (v) => !values.some((value) => isDeepStrictEqual(value, v))
      );
    }
}
