import type { Twin } from '../model/twin.ts';

/** Whether only one half is here and nothing is on its way to become the other. */
export const isUnpaired = ({ video, post, standing, reason }: Twin): boolean =>
  (video === null || post === null) &&
  (standing === 'no-post' ||
    standing === 'no-video' ||
    reason.kind === 'on-the-desk' ||
    reason.kind === 'in-the-booth');
