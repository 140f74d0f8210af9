import type { Compared } from './compared.ts';
import { noLikeness, type Likeness } from './likeness.ts';

/** A pair that was compared by itself, and not yet beside others. */
export const aPair = (
  video: number,
  post: number,
  {
    likeness,
    ...given
  }: Partial<Omit<Compared, 'likeness'>> & { likeness?: Partial<Likeness> } = {}
): Compared => ({
  video,
  post,
  alone: 0,
  likeness: { ...noLikeness(), ...likeness },
  isClip: false,
  isOfAnother: false,
  beside: 0,
  ofVideo: -Infinity,
  ofPost: -Infinity,
  freeOfVideo: -Infinity,
  freeOfPost: -Infinity,
  near: 'none',
  ...given
});
