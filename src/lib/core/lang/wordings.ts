/** How an update sounds. */
export const MANNERS = ['plain', 'warm', 'brisk'] as const;
export type Manner = (typeof MANNERS)[number];

export interface Wordings {
  /** Before the title; empty wordings leave it as it is. */
  opening: Record<Manner, Record<'post' | 'video', readonly string[]>>;
  /** Before the link. */
  close: Record<Manner, Record<'post' | 'video', readonly string[]>>;
}
